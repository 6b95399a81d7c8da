<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Failure\Problem;
use App\SelfBackup\SelfBackup;

final class SelfBackupCommand extends CellariumCommand
{
    protected const BY_ITSELF = true;

    private const SHORTEST = 12;

    protected $signature = 'cellarium:self-backup {file : to write, or to bring back} '
        .'{--bring-back : into an empty database, on a new machine} '
        .'{--passphrase-file= : where the passphrase stands; asked for when it is not given} {--json}';

    protected $description = 'Save Cellarium itself in one file sealed with a passphrase: database, keys and lists';

    public function handle(SelfBackup $self): int
    {
        $file = (string) $this->argument('file');
        $passphrase = $this->passphrase();
        if ($this->option('bring-back') === true) {
            $back = $self->bringBack($file, $passphrase);
            $isSame = hash_equals($back['app_key'], (string) config('app.key'));
            $this->wantsJson()
                ? $this->json(['ok' => true, 'files' => $back['files'], 'app_key_is_the_same' => $isSame])
                : $this->components->info(
                    "Brought back, with {$back['files']} lists. ".($isSame
                        ? ''
                        : "Put APP_KEY={$back['app_key']} into .env: without it no stored password can be read. ")
                        .'Copy contents/ of the store as well, unless it speaks S3, then run cellarium:store.',
                );

            return self::PROVEN;
        }
        is_file($file) && throw new Problem("$file is there already. Name another one.");
        $lists = $self->save($file, $passphrase);
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

    private function passphrase(): string
    {
        $from = $this->option('passphrase-file');
        $given = match (true) {
            is_string($from) => rtrim((string) @file_get_contents($from), "\r\n"),
            $this->input->isInteractive() => (string) $this->secret('Passphrase'),
            default => '',
        };

        return strlen($given) >= self::SHORTEST ? $given : throw new Problem(
            'A passphrase of at least '.self::SHORTEST.' characters is needed, typed or in the file that '
                .'--passphrase-file names.',
        );
    }
}
