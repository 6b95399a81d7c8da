<?php

declare(strict_types=1);

namespace App\SelfBackup;

use App\Failure\Problem;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Storage\ScratchFile;
use ZipArchive;

/** A backup of Cellarium itself, unsealed, for reading what is in it. */
final class OpenedBackup
{
    public const DATABASE = 'database.sql';

    public const KEYS = 'keys.json';

    public const SHEET_KEY = 'sheet-key.json';

    public const APP_KEY = 'app-key';

    /** Which installation it is of; backups of before there were identities have none. */
    public const INSTALLATION = 'installation.json';

    public const VERSION = 2;

    /** Below the directory for data: what the database names and does not hold. */
    public const DIRECTORIES = ['backups', 'manifests', 'runs'];

    private function __construct(public readonly ScratchFile $file, private readonly ZipArchive $zip)
    {
    }

    /** @throws Problem where it does not open */
    public static function open(string $file, #[\SensitiveParameter] string $passphrase): self
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
        $opened = new self($packed, $zip);
        $opened->version() <= self::VERSION || throw new Problem(
            "$file was written by a later version of Cellarium. Nothing was changed; bring it back with that version.",
        );

        return $opened;
    }

    public function appKey(): string
    {
        return (string) $this->zip->getFromName(self::APP_KEY);
    }

    /** "" for one of before there were identities. */
    public function identity(): string
    {
        $text = $this->zip->getFromName(self::INSTALLATION);

        return $text === false ? '' : JsonFields::fromJson($text)->text('identity');
    }

    /** @return \Generator<string> */
    public function pieces(string $name): \Generator
    {
        $stream = $this->zip->getStream($name);
        while ($stream !== false && ($piece = (string) fread($stream, 1 << 18)) !== '') {
            yield $piece;
        }
    }

    /** @return list<string> */
    public function names(): array
    {
        $names = [];
        for ($number = 0; $number < $this->zip->numFiles; $number++) {
            $names[] = (string) $this->zip->getNameIndex($number);
        }

        return $names;
    }

    /** @return list<string> names of lists of backups that lie in it */
    public function lists(): array
    {
        $lists = [];
        foreach ($this->names() as $name) {
            preg_match('#\Abackups/([0-9a-f-]+)\.jsonl\.gz\z#', $name, $match) === 1 && $lists[] = $match[1];
        }

        return $lists;
    }

    private function version(): int
    {
        $text = $this->zip->getFromName(self::INSTALLATION);

        return $text === false ? 1 : JsonFields::fromJson($text)->number('version');
    }

    public function __destruct()
    {
        $this->zip->close(); // Before the file it reads goes with this.
    }
}
