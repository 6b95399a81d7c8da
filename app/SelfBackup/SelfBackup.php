<?php

declare(strict_types=1);

namespace App\SelfBackup;

use App\Failure\Problem;
use App\Models\Backup;
use App\Models\RecordKind;
use App\Record\Record;
use App\Sheets\Sheets;
use App\Storage\Stores;
use Cellarium\Core\Archive\ZipOut;
use Cellarium\Core\Storage\FilePieces;
use Cellarium\Core\Storage\ScratchFile;
use Cellarium\Core\Storage\WholeFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Cellarium itself in one sealed file: its database, its keys, its lists of what backups and packages hold. The
 * contents are not in it: they lie in the store, which is copied as it is, or speaks S3. Nor is the passphrase.
 */
final readonly class SelfBackup
{
    /** @throws Problem */
    public function save(string $file, #[\SensitiveParameter] string $passphrase): int
    {
        $dump = DatabaseDump::write();
        $packed = ScratchFile::create();
        $out = fopen($packed->path, 'wb');
        $zip = new ZipOut(static function (string $bytes) use ($out): void {
            $out !== false && @fwrite($out, $bytes) === strlen($bytes)
                || throw new Problem('There is no room to put the backup together. Make some, then try again.');
        });
        $add = static function (string $name, string $path) use ($zip): bool {
            $from = @fopen($path, 'rb');
            if ($from === false) {
                return false;
            }
            $zip->compressed($name, (int) filemtime($path), 0600, $from, 1);
            fclose($from);

            return true;
        };
        $must = static fn (string $name, string $path): bool => $add($name, $path)
            || throw new Problem("$path cannot be read. Check its permissions.");
        $must(OpenedBackup::DATABASE, $dump->path);
        is_file(Stores::keyFile()) && $must(OpenedBackup::KEYS, Stores::keyFile());
        is_file(Sheets::keyFile()) && $must(OpenedBackup::SHEET_KEY, Sheets::keyFile());
        $facts = [
            OpenedBackup::APP_KEY => (string) config('app.key'),
            OpenedBackup::INSTALLATION => json_encode([
                'version' => OpenedBackup::VERSION,
                'identity' => (string) config('cellarium.identity'),
            ], JSON_THROW_ON_ERROR),
        ];
        foreach ($facts as $name => $text) {
            $scratch = ScratchFile::create();
            file_put_contents($scratch->path, $text);
            $must($name, $scratch->path);
        }
        $files = 0;
        foreach ($this->files() as $name => $path) {
            // One that was let go of, or replaced, since the directory was read is none of this moment.
            $isIn = $add($name, $path) || (is_file($path) && $must($name, $path));
            $files += (int) $isIn;
        }
        $zip->finish();
        $out === false || fclose($out);
        SealedFile::write($file, $passphrase, FilePieces::read($packed->path));
        Record::write(RecordKind::SelfSaved, "Cellarium itself was saved, with $files lists of what is stored");

        return $files;
    }

    /**
     * The keys of the application and of the installation are the ones from the backup, from here on and in this
     * process.
     *
     * @throws Problem with nothing changed where the file does not open or something is here already
     */
    public function bringBack(string $file, #[\SensitiveParameter] string $passphrase): BroughtBack
    {
        $opened = OpenedBackup::open($file, $passphrase);
        Schema::hasTable('clients') && DB::table('clients')->exists() && throw new Problem(
            'There are clients here already, so nothing was changed. Bring it back into an empty database.',
        );
        DatabaseDump::load($opened->pieces(OpenedBackup::DATABASE), DatabaseUser::ofApplication());
        DB::purge();
        $back = new BroughtBack($opened->appKey(), $opened->identity());
        config(['app.key' => $back->appKey]);
        $back->identity === '' || config(['cellarium.identity' => $back->identity]);
        $known = Backup::whereNotNull('name')->pluck('name')->flip()->all();
        foreach ($opened->names() as $name) {
            $place = $this->place($name, $known);
            if ($place !== null) {
                WholeFile::write($place, $opened->pieces($name), 0600);
                $back->files += in_array($name, [OpenedBackup::KEYS, OpenedBackup::SHEET_KEY], true) ? 0 : 1;
            }
        }
        Record::write(RecordKind::SelfRestored, "Cellarium was brought back from a backup of itself: $back->files "
            .'lists');

        return $back;
    }

    /**
     * Where a file of the archive goes; null for what is none of ours to write, and for the list of a backup that was
     * taken after the database had been written out.
     *
     * @param  array<string, mixed>  $known  names of backups of the database
     */
    private function place(string $name, array $known): ?string
    {
        if ($name === OpenedBackup::KEYS || $name === OpenedBackup::SHEET_KEY) {
            return $name === OpenedBackup::KEYS ? Stores::keyFile() : Sheets::keyFile();
        }
        $isOurs = preg_match('#\A(?:'.implode('|', OpenedBackup::DIRECTORIES).')/[A-Za-z0-9._/-]+\z#', $name) === 1
            && ! in_array('..', explode('/', $name), true);
        $isOfUnknown = preg_match('#\Abackups/([0-9a-f-]+)(?:\.unclaimed)?\.jsonl\.gz\z#', $name, $match) === 1
            && ! isset($known[$match[1]]);

        return $isOurs && ! $isOfUnknown && ! str_starts_with($name, 'backups/record-end')
            ? config('cellarium.var')."/$name"
            : null;
    }

    /** @return \Generator<string, string> paths by the names they have in the archive */
    private function files(): \Generator
    {
        $var = (string) config('cellarium.var');
        foreach (OpenedBackup::DIRECTORIES as $directory) {
            if (! is_dir("$var/$directory")) {
                continue;
            }
            $found = new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator("$var/$directory", \FilesystemIterator::SKIP_DOTS),
            );
            foreach ($found as $file) {
                $isKept = $file instanceof \SplFileInfo && $file->isFile() && $file->getExtension() !== 'new'
                    && ! str_starts_with($file->getFilename(), '.');
                if ($isKept) {
                    yield substr($file->getPathname(), strlen($var) + 1) => $file->getPathname();
                }
            }
        }
    }
}
