<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\Errand;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\File\Provenance;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;

/** One name in a directory with what is known of it. */
final readonly class FileEntry
{
    /** Where each fact stands in the list that is stored. */
    public const NAME = 0;

    public const KIND = 1;

    public const SIZE = 2;

    public const MODIFIED = 3;

    public const MODE = 4;

    public const FROM = 7;

    public const DEPLOYMENT = 8;

    /**
     * @param  int|null  $modified  seconds since 1970, UTC
     * @param  bool  $exact  whether that is right to the second
     * @param  int|null  $mode  twelve bits
     * @param  int|null  $deployment  that brought it
     */
    public function __construct(
        public string $name,
        public EntryKind $kind,
        public ?int $size,
        public ?int $modified,
        public ?int $mode,
        public bool $exact,
        public ?string $target,
        public Provenance $provenance = Provenance::NotOurs,
        public ?int $deployment = null,
    ) {
    }

    public static function fromEntry(RemoteEntry $entry, Provenance $provenance, ?int $deployment): self
    {
        return new self(
            $entry->name,
            $entry->kind,
            $entry->size,
            $entry->modified,
            $entry->mode,
            $entry->exact,
            $entry->target,
            $provenance,
            $deployment,
        );
    }

    public function isDirectory(): bool
    {
        return $this->kind === EntryKind::Directory;
    }

    public function isFile(): bool
    {
        return $this->kind === EntryKind::File;
    }

    public function isHidden(): bool
    {
        return str_starts_with($this->name, '.');
    }

    /**
     * What of it was seen, in a word that goes with its name: what lies there later is compared with it.
     *
     * No slash is in it, so that the name behind one can be any.
     */
    public function seenWord(): string
    {
        return implode('.', [
            $this->kind->value,
            $this->isFile() ? $this->size : 0,
            $this->exact ? $this->modified : null,
            $this->mode,
        ])."/$this->name";
    }

    /**
     * Those that an errand was given the words of; null where one of them is no such word.
     *
     * @return list<ManifestEntry>|null
     */
    public static function chosen(Errand $errand, FilePlace $place): ?array
    {
        $words = $errand->given['names'] ?? [];
        $seen = array_filter(
            array_map(static fn (string $word): ?ManifestEntry => self::seen($place->at, $word), $words),
        );

        return count($seen) === count($words) ? array_values($seen) : null;
    }

    /**
     * The same read back.
     *
     * @return ManifestEntry|null null for what is none; path from the login's root
     */
    public static function seen(RemotePath $directory, string $word): ?ManifestEntry
    {
        $isOne = preg_match('#\A([a-z]+)\.(\d{1,18})\.(-?\d{0,18})\.(\d{0,5})/(.+)\z#s', $word, $match) === 1;
        $kind = $isOne ? EntryKind::tryFrom($match[1]) : null;
        $name = $isOne ? RelativePath::tryFromString($match[5]) : null;

        return $kind === null || $name === null || $name->depth() > 1
            ? null
            : new ManifestEntry(
                RelativePath::fromString(ltrim($directory->join($name)->toString(), '/')),
                $kind,
                (int) $match[2],
                $match[3] === '' ? null : (int) $match[3],
                $match[4] === '' ? null : (int) $match[4],
            );
    }

    /** @return list<mixed> */
    public function toList(): array
    {
        return [
            $this->name,
            $this->kind->value,
            $this->size,
            $this->modified,
            $this->mode,
            $this->exact,
            $this->target,
            $this->provenance->value,
            $this->deployment,
        ];
    }

    /** @param  list<mixed>  $list */
    public static function fromList(array $list): self
    {
        return new self(
            $list[self::NAME],
            EntryKind::from($list[self::KIND]),
            $list[self::SIZE],
            $list[self::MODIFIED],
            $list[self::MODE],
            $list[5],
            $list[6],
            Provenance::from($list[self::FROM]),
            $list[self::DEPLOYMENT],
        );
    }
}
