<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\FormatLine;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreFault;
use Cellarium\Core\Storage\WholeFile;

/**
 * Manifests of backups: written once under a name that cannot clash, readable without any database.
 *
 * A list is kept before a row of the database names it, and claimed afterwards: what a kill leaves in between is told
 * from a list whose row was lost.
 */
final readonly class BackupShelf
{
    private const CLAIMED = '.jsonl.gz';

    private const UNCLAIMED = '.unclaimed.jsonl.gz';

    /** How a list is written: the format's line, then the lines of a manifest; before it there was no such line. */
    private const FORMAT = 1;

    private const NAME = '/\A[0-9]{8}-[0-9]{6}-[0-9a-f]{12}\z/';

    public function __construct(private string $directory)
    {
    }

    /**
     * @return string the backup's name; the list is not claimed yet
     *
     * @throws StoreFailure
     */
    public function keep(Manifest $manifest, \DateTimeImmutable $at): string
    {
        $name = $at->setTimezone(new \DateTimeZone('UTC'))->format('Ymd-His').'-'.bin2hex(random_bytes(6));
        WholeFile::write(
            $this->file($name, self::UNCLAIMED),
            (string) gzencode(FormatLine::forFormat(self::FORMAT).$manifest->toText()),
        );

        return $name;
    }

    /**
     * Says that a row of the database names it. Said twice, it does no harm.
     *
     * @throws StoreFailure
     */
    public function claim(string $name): void
    {
        if (@rename($this->file($name, self::UNCLAIMED), $this->file($name, self::CLAIMED))) {
            WholeFile::syncDirectory($this->directory);
        }
    }

    /** @return list<string> of all backups that lie here and were claimed, oldest first */
    public function names(): array
    {
        return $this->named(self::CLAIMED);
    }

    /** @return list<string> of those that no row names yet, or that a kill left so */
    public function unclaimed(): array
    {
        return $this->named(self::UNCLAIMED);
    }

    /** Seconds since 1970 when it was kept; null where it is not here. */
    public function keptAt(string $name): ?int
    {
        foreach ([self::CLAIMED, self::UNCLAIMED] as $ending) {
            $time = @filemtime($this->file($name, $ending));
            if ($time !== false) {
                return $time;
            }
        }

        return null;
    }

    /**
     * Moves a list aside, where it lies until deleteAside(); its contents go with the next sweep, where no other backup
     * holds them.
     *
     * @return bool whether there was one
     */
    public function moveAside(string $name): bool
    {
        if (! is_dir("$this->directory/aside") && ! @mkdir("$this->directory/aside", 0700, true)) {
            return false;
        }
        foreach ([self::CLAIMED, self::UNCLAIMED] as $ending) {
            if (@rename($this->file($name, $ending), "$this->directory/aside/$name".self::CLAIMED)) {
                @touch("$this->directory/aside/$name".self::CLAIMED);

                return true;
            }
        }

        return false;
    }

    /**
     * @param  int  $before  seconds since 1970; what was moved aside since then stays
     * @return int how many lists are gone for good
     */
    public function deleteAside(int $before): int
    {
        $gone = 0;
        foreach (glob("$this->directory/aside/*".self::CLAIMED) ?: [] as $file) {
            $facts = @stat($file);
            $gone += $facts !== false && max($facts['mtime'], $facts['ctime']) < $before && @unlink($file) ? 1 : 0;
        }

        return $gone;
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
        try {
            return Manifest::fromText($this->text($name));
        } catch (\UnexpectedValueException) {
            throw StoreFailure::damagedList($name);
        }
    }

    /**
     * Hashes that can still be read out of lists that were set aside as damaged, and of one that is: what they name is
     * not let go of, since the list may come back from a copy.
     *
     * @return \Generator<string>
     */
    public function salvaged(?string $name = null): \Generator
    {
        $files = $name === null
            ? glob("$this->directory/*.damaged")
            : array_filter([$this->file($name, self::CLAIMED), $this->file($name, self::UNCLAIMED)], is_file(...));
        foreach ($files === false ? [] : $files as $file) {
            yield from self::hashes(self::inflated((string) @file_get_contents($file)));
        }
    }

    /** As much of it as comes out. */
    private static function inflated(string $packed): string
    {
        $inflating = inflate_init(ZLIB_ENCODING_GZIP);
        $text = '';
        foreach (str_split($packed, 4096) as $piece) {
            $more = $inflating === false ? false : @inflate_add($inflating, $piece);
            if ($more === false) {
                break;
            }
            $text .= $more;
        }

        return $text;
    }

    /** @return list<string> whatever in a text looks like a hash of contents */
    public static function hashes(string $text): array
    {
        preg_match_all('/"sha256":"([0-9a-f]{64})"/', $text, $match);

        return $match[1];
    }

    /**
     * Takes a list that cannot be read out of the way, so that it stands for nothing any more; it is kept beside.
     *
     * @return bool false for one that can be read, or is not there at all
     */
    public function setAsideDamaged(string $name): bool
    {
        if ($this->keptAt($name) === null) {
            return false;
        }
        try {
            $this->manifest($name);

            return false;
        } catch (StoreFailure $failure) {
            return $failure->fault === StoreFault::Damaged
                && @rename($this->file($name, self::CLAIMED), "$this->directory/$name.damaged");
        }
    }

    /** @return list<string> */
    private function named(string $ending): array
    {
        $names = [];
        $files = is_dir($this->directory) ? scandir($this->directory) : [];
        foreach ($files === false ? throw StoreFailure::reading($this->directory) : $files as $file) {
            $name = basename($file, $ending);
            if ($file === $name.$ending && preg_match(self::NAME, $name) === 1) {
                $names[] = $name;
            }
        }

        return $names;
    }

    private function file(string $name, string $ending): string
    {
        return preg_match(self::NAME, $name) === 1
            ? "$this->directory/$name$ending"
            : throw StoreFailure::damagedList($name);
    }

    /** @throws StoreFailure */
    private function text(string $name): string
    {
        $packed = @file_get_contents($this->file($name, self::CLAIMED));
        // It may be claimed in between.
        $packed = $packed === false ? @file_get_contents($this->file($name, self::UNCLAIMED)) : $packed;
        $packed = $packed === false ? @file_get_contents($this->file($name, self::CLAIMED)) : $packed;
        $text = $packed === false ? false : @gzdecode($packed);

        return $text === false
            ? throw StoreFailure::damagedList($name)
            : FormatLine::without($text, "The list of what the backup $name holds", self::FORMAT);
    }
}
