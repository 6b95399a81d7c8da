<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\SelfBackup\BackupPlace;
use App\SelfBackup\BroughtBack;
use App\SelfBackup\OwnBackups;
use App\SelfBackup\Passphrase;
use App\SelfBackup\SelfBackup;
use App\Text\Amount;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Storage\WholeFile;

final class SelfBackupCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    private const SHORTEST = 12;

    protected $signature = 'cellarium:self-backup {file? : to write, or to bring back} '
        .'{--nightly : to the place that the settings name, 7 daily and 4 weekly are kept} '
        .'{--rehearse : bring the newest of those back into an empty database beside, and look} '
        .'{--if-due : only where the last rehearsal was a month ago} '
        .'{--new-passphrase : make the one of the nightly backups and show it, once} '
        .'{--bring-back : into an empty database; bin/bring-back does the rest as well} '
        .'{--settings-into= : a new file for the keys that came back, as lines of .env} '
        .'{--passphrase-file= : where the passphrase stands; asked for when it is not given} {--json}';

    protected $description = 'Save Cellarium itself in one file sealed with a passphrase: database, keys and lists';

    public function handle(SelfBackup $self, OwnBackups $own): int
    {
        return match (true) {
            $this->option('new-passphrase') === true => $this->newPassphrase(),
            $this->option('nightly') === true => $this->nightly($own),
            $this->option('rehearse') === true => $this->rehearse($own),
            $this->option('bring-back') === true => $this->bringBack($self),
            default => $this->save($self),
        };
    }

    private function newPassphrase(): int
    {
        $passphrase = Passphrase::make()->reveal();
        $this->wantsJson()
            ? $this->json(['ok' => true, 'passphrase' => $passphrase, 'file' => Passphrase::file()])
            : $this->line(
                "Cellarium's own backups are sealed with the passphrase\n\n    $passphrase\n\nIt is shown this once. "
                    .'Keep it '
                    .'somewhere else than on this machine: without it nobody can bring a backup back.',
            );

        return self::PROVEN;
    }

    private function nightly(OwnBackups $own): int
    {
        if (BackupPlace::named() === null) {
            // It stands on Today as long as no place is named; each night once more would say no more.
            $this->wantsJson() ? $this->json(['ok' => true, 'saved' => null]) : $this->components->info(
                'CELLARIUM_SELF_BACKUP_TO names no place, so nothing was saved.',
            );

            return self::PROVEN;
        }
        $saved = $own->nightly();
        $this->wantsJson()
            ? $this->json([
                'ok' => true,
                'saved' => $saved->name,
                'bytes' => $saved->bytes,
                'lists' => $saved->lists,
            ])
            : $this->components->info("Saved as $saved->name, ".Amount::bytes($saved->bytes).", with $saved->lists "
                .'lists.');

        return self::PROVEN;
    }

    private function rehearse(OwnBackups $own): int
    {
        if ($this->option('if-due') === true && ! $own->isRehearsalDue()) {
            $this->wantsJson() ? $this->json(['ok' => true, 'rehearsed' => null]) : $this->components->info('None is '
                .'due.');

            return self::PROVEN;
        }
        $rehearsed = $own->rehearse();
        $this->wantsJson()
            ? $this->json(['ok' => true, 'rehearsed' => $rehearsed->name, 'found' => $rehearsed->rehearsal])
            : $this->components->info("$rehearsed->name was brought back beside: $rehearsed->rehearsal.");

        return self::PROVEN;
    }

    private function bringBack(SelfBackup $self): int
    {
        $into = $this->option('settings-into');
        is_string($into) && file_exists($into) && throw new Problem("$into is there already. Name another file.");
        $before = (string) config('app.key');
        $back = $self->bringBack($this->file(), $this->passphrase()->reveal());
        is_string($into) && WholeFile::write($into, self::settings($back), 0600);
        $isSame = hash_equals($back->appKey, $before);
        $this->wantsJson()
            ? $this->json(['ok' => true, 'files' => $back->files, 'app_key_is_the_same' => $isSame])
            : $this->components->info(
                "Brought back, with $back->files lists. ".(is_string($into) || $isSame
                    ? ''
                    : "Put these lines into .env: without them no stored password can be read.\n".self::settings($back))
                    .'Copy contents/ of the store as well, unless it speaks S3, then run cellarium:store.',
            );

        return self::PROVEN;
    }

    private function save(SelfBackup $self): int
    {
        $file = $this->file();
        is_file($file) && throw new Problem("$file is there already. Name another one.");
        $lists = $self->save($file, $this->passphrase()->reveal());
        $this->wantsJson()
            ? $this->json([
                'ok' => true,
                'file' => $file,
                'bytes' => filesize($file),
                'lists' => $lists,
            ])
            : $this->components->info(
                "Saved in $file, with $lists lists. What is stored lies in contents/ or at the store that speaks S3, "
                    .'and is to be copied beside it.',
            );

        return self::PROVEN;
    }

    private static function settings(BroughtBack $back): string
    {
        return "APP_KEY=$back->appKey\n".($back->identity === '' ? '' : "CELLARIUM_IDENTITY=$back->identity\n");
    }

    private function file(): string
    {
        $file = $this->argument('file');

        return is_string($file) ? $file : throw new Problem('Name a file to write, or to bring back.');
    }

    private function passphrase(): Secret
    {
        $from = $this->option('passphrase-file');
        $given = match (true) {
            is_string($from) => rtrim((string) @file_get_contents($from), "\r\n"),
            $this->input->isInteractive() => (string) $this->secret('Passphrase'),
            default => '',
        };

        return strlen($given) >= self::SHORTEST ? new Secret($given) : throw new Problem(
            'A passphrase of at least '.self::SHORTEST.' characters is needed, typed or in the file that '
                .'--passphrase-file names.',
        );
    }
}
