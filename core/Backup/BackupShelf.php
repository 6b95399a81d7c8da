<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\WholeFile;

/** Where manifests of backups lie; written once under a name that cannot clash, readable without any database. */
final readonly class BackupShelf
{
    public function __construct(private string $directory)
    {
    }

    /**
     * @return string the backup's name
     *
     * @throws StoreFailure
     */
    public function keep(Manifest $manifest, \DateTimeImmutable $at): string
    {
        $name = $at->setTimezone(new \DateTimeZone('UTC'))->format('Ymd-His').'-'.bin2hex(random_bytes(6));
        WholeFile::write("$this->directory/$name.jsonl.gz", (string) gzencode($manifest->toText()));

        return $name;
    }

    /** @return list<string> of all backups that lie here */
    public function names(): array
    {
        return array_map(
            static fn (string $file): string => basename($file, '.jsonl.gz'),
            glob("$this->directory/*.jsonl.gz") ?: [],
        );
    }

    /** Whether there was one; its contents go with the next sweep, where no other backup holds them. */
    public function remove(string $name): bool
    {
        return preg_match('/\A[0-9a-f-]+\z/', $name) === 1 && @unlink("$this->directory/$name.jsonl.gz");
    }

    /**
     * What a backup holds of one file, without all of it being read; null where it holds none.
     *
     * @throws StoreFailure
     */
    public function entry(string $name, string $path): ?ManifestEntry
    {
        return Manifest::entryOf($this->text($name), $path);
    }

    /**
     * Whether what was kept under a name is that manifest, read back.
     *
     * @throws StoreFailure
     */
    public function holds(string $name, Manifest $manifest): bool
    {
        return hash('sha256', $this->text($name)) === hash('sha256', $manifest->toText());
    }

    /** @throws StoreFailure */
    public function manifest(string $name): Manifest
    {
        return Manifest::fromText($this->text($name));
    }

    /**
     * Takes a list that cannot be read out of the way, so that it stands for nothing any more; it is kept beside.
     *
     * @return bool false for one that can be read
     */
    public function setAsideDamaged(string $name): bool
    {
        try {
            Manifest::fromText($this->text($name));

            return false;
        } catch (StoreFailure|\UnexpectedValueException) {
            preg_match('/\A[0-9a-f-]+\z/', $name) === 1
                && @rename("$this->directory/$name.jsonl.gz", "$this->directory/$name.damaged");

            return true;
        }
    }

    /** @throws StoreFailure */
    private function text(string $name): string
    {
        $text = preg_match('/\A[0-9a-f-]+\z/', $name) === 1
            ? @gzdecode((string) @file_get_contents("$this->directory/$name.jsonl.gz"))
            : false;

        return $text === false ? throw StoreFailure::damagedList($name) : $text;
    }
}
