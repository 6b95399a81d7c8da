<?php

declare(strict_types=1);

namespace App\SelfBackup;

use App\Failure\Problem;
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
use ZipArchive;

/**
 * Cellarium itself in one sealed file: its database, its keys, its lists of what backups and packages hold. The
 * contents are not in it: they lie in the store, which is copied as it is, or speaks S3.
 */
final readonly class SelfBackup
{
    private const DATABASE = 'database.sql';

    private const KEYS = 'keys.json';

    private const SHEET_KEY = 'sheet-key.json';

    private const APP_KEY = 'app-key';

    /** Below the directory for data: what the database names and does not hold. */
    private const DIRECTORIES = ['backups', 'manifests', 'runs'];

    /** @throws Problem */
    public function save(string $file, #[\SensitiveParameter] string $passphrase): int
    {
        $dump = $this->dump();
        $packed = ScratchFile::create();
        $out = fopen($packed->path, 'wb');
        $zip = new ZipOut(static function (string $bytes) use ($out): void {
            $out !== false && @fwrite($out, $bytes) === strlen($bytes)
                || throw new Problem('There is no room to put the backup together. Make some, then try again.');
        });
        $add = static function (string $name, string $path) use ($zip): void {
            $from = @fopen($path, 'rb');
            $from !== false || throw new Problem("$path cannot be read. Check its rights.");
            $zip->compressed(
                $name,
                (int) filemtime($path),
                0600,
                $from,
                1,
            );
            fclose($from);
        };
        $add(self::DATABASE, $dump->path);
        is_file(Stores::keyFile()) && $add(self::KEYS, Stores::keyFile());
        is_file(Sheets::keyFile()) && $add(self::SHEET_KEY, Sheets::keyFile());
        $key = ScratchFile::create();
        file_put_contents($key->path, (string) config('app.key'));
        $add(self::APP_KEY, $key->path);
        $files = 0;
        foreach ($this->files() as $name => $path) {
            $add($name, $path);
            $files++;
        }
        $zip->finish();
        $out === false || fclose($out);
        SealedFile::write($file, $passphrase, FilePieces::of($packed->path));
        Record::write(RecordKind::SelfSaved, "Cellarium itself was saved, with $files lists of what is stored");

        return $files;
    }

    /**
     * @return array{files: int, app_key: string} lists that were put back, and the key of the application as it was
     *
     * @throws Problem with nothing changed where the file does not open or something is here already
     */
    public function bringBack(string $file, #[\SensitiveParameter] string $passphrase): array
    {
        $packed = ScratchFile::create();
        $out = fopen($packed->path, 'wb');
        foreach (SealedFile::read($file, $passphrase) as $piece) {
            $out !== false && @fwrite($out, $piece) === strlen($piece)
                || throw new Problem('There is no room to open the backup. Make some, then try again.');
        }
        $out === false || fclose($out);
        $zip = new ZipArchive;
        $zip->open($packed->path, ZipArchive::RDONLY | ZipArchive::CHECKCONS) === true
            && $zip->locateName(self::DATABASE) !== false
            || throw new Problem("$file was opened and holds no backup of Cellarium itself.");
        Schema::hasTable('clients') && DB::table('clients')->exists() && throw new Problem(
            'There are clients here already, so nothing was changed. Bring it back into an empty database.',
        );
        $this->load($zip);
        $files = 0;
        for ($number = 0; $number < $zip->numFiles; $number++) {
            $name = (string) $zip->getNameIndex($number);
            $place = $this->place($name);
            if ($place !== null) {
                WholeFile::write($place, $this->pieces($zip, $name), 0600);
                $files += in_array($name, [self::KEYS, self::SHEET_KEY], true) ? 0 : 1;
            }
        }
        Record::write(RecordKind::SelfRestored, "Cellarium was brought back from a backup of itself: $files lists");

        return ['files' => $files, 'app_key' => (string) $zip->getFromName(self::APP_KEY)];
    }

    /** Where a file of the archive goes; null for what is none of ours to write. */
    private function place(string $name): ?string
    {
        if ($name === self::KEYS || $name === self::SHEET_KEY) {
            return $name === self::KEYS ? Stores::keyFile() : Sheets::keyFile();
        }
        $isOurs = preg_match('#\A(?:'.implode('|', self::DIRECTORIES).')/[A-Za-z0-9._/-]+\z#', $name) === 1
            && ! in_array('..', explode('/', $name), true);

        return $isOurs ? config('cellarium.var')."/$name" : null;
    }

    /** @return \Generator<string, string> paths by the names they have in the archive */
    private function files(): \Generator
    {
        $var = (string) config('cellarium.var');
        foreach (self::DIRECTORIES as $directory) {
            if (! is_dir("$var/$directory")) {
                continue;
            }
            $found = new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator("$var/$directory", \FilesystemIterator::SKIP_DOTS),
            );
            foreach ($found as $file) {
                if ($file instanceof \SplFileInfo && $file->isFile() && $file->getExtension() !== 'new') {
                    yield substr($file->getPathname(), strlen($var) + 1) => $file->getPathname();
                }
            }
        }
    }

    /** @return \Generator<string> */
    private function pieces(ZipArchive $zip, string $name): \Generator
    {
        $stream = $zip->getStream($name);
        while ($stream !== false && ($piece = (string) fread($stream, 1 << 18)) !== '') {
            yield $piece;
        }
    }

    private function dump(): ScratchFile
    {
        $file = ScratchFile::create();
        $this->client(['mariadb-dump', '--single-transaction', '--hex-blob', '--skip-dump-date'], [
            1 => ['file', $file->path, 'wb'],
        ], 'The database could not be written out');

        return $file;
    }

    private function load(ZipArchive $zip): void
    {
        $file = ScratchFile::create();
        $out = fopen($file->path, 'wb');
        foreach ($this->pieces($zip, self::DATABASE) as $piece) {
            $out !== false && fwrite($out, $piece);
        }
        $out === false || fclose($out);
        $this->client(['mariadb'], [0 => ['file', $file->path, 'rb']], 'The database could not be brought back');
        DB::purge();
    }

    /**
     * @param  list<string>  $command
     * @param  array<int, list<string>>  $streams
     */
    private function client(array $command, array $streams, string $trouble): void
    {
        $database = (array) config('database.connections.'.config('database.default'));
        $said = ScratchFile::create();
        $process = proc_open(
            [
                $command[0],
                '--no-defaults',
                "--host={$database['host']}",
                "--port={$database['port']}",
                "--user={$database['username']}",
                ...array_slice($command, 1),
                (string) $database['database'],
            ],
            $streams + [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', $said->path, 'w']],
            $pipes,
            null,
            // Not among the arguments, which everybody on the machine sees.
            ['MYSQL_PWD' => (string) $database['password'], 'PATH' => (string) getenv('PATH')],
        );
        $process !== false && proc_close($process) === 0 || throw new Problem(
            "$trouble: ".trim((string) file_get_contents($said->path)),
        );
    }
}
