<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\Leftovers;
use Cellarium\Core\Package\Contents\PackageContents;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Fit\ClientSites;
use Cellarium\Core\Package\Type\TypeSource;
use Cellarium\Core\Storage\ContentStore;
use Psr\Clock\ClockInterface;

/** Opens an archive, puts its contents into the store and says what it is. */
final readonly class PackageIntake
{
    public function __construct(
        private ContentStore $store,
        private ClockInterface $clock,
        private ArchiveLimits $limits = new ArchiveLimits,
        private ?TypeSource $types = null,
        private ?ClientSites $sites = null,
    ) {
    }

    /**
     * @param  string  $name  the file name people gave it, "pilgrim-stones-1.0.zip"
     * @param  list<PackageFinding>  $before  of the last version, where there is one
     *
     * @throws PackageRefused nothing of it is used then
     */
    public function take(string $file, string $name, array $before = []): Inspection
    {
        [$manifest, $left, $modes] = $this->unpacked($file, $name);
        [$manifest, $wrapper] = Wrapper::lift($manifest);

        return $this->inspector()->inspect(
            $manifest,
            PackageOrigin::named($name)->opened($wrapper, $left, self::below($wrapper, $modes)),
            $before,
        );
    }

    /**
     * All that an archive holds, its contents in the store; what it is is not asked.
     *
     * @throws PackageRefused
     */
    public function unpack(string $file, string $name): Manifest
    {
        return $this->unpacked($file, $name, true)[0];
    }

    /**
     * @param  bool  $withLeftovers  whether these are taken in too
     * @return array{Manifest, list<string>, array<string, int>} what it holds, what was left out of it, modes by path
     *
     * @throws PackageRefused
     */
    private function unpacked(string $file, string $name, bool $withLeftovers = false): array
    {
        $archive = $this->open($file, $name);
        $entries = [];
        $left = [];
        $modes = [];
        foreach ($archive->entries() as $entry) {
            $path = $entry->path->toString();
            if (! $withLeftovers && Leftovers::isOne($entry->path)) {
                $left[] = $path;

                continue;
            }
            if (isset($entries[$path]) && ! ($entry->isDirectory && ! $entries[$path]->isFile())) {
                throw PackageRefused::because($name, RefusalReason::TwiceTheSame, $path);
            }
            $entries[$path] = $entry->isDirectory
                ? new ManifestEntry($entry->path, EntryKind::Directory)
                : $this->keep($archive, $entry);
            $entry->mode === null || $modes[$path] = $entry->mode;
            foreach ($entry->path->ancestors() as $above) {
                $entries[$above->toString()] ??= new ManifestEntry($above, EntryKind::Directory);
                if ($entries[$above->toString()]->isFile()) {
                    throw PackageRefused::because($name, RefusalReason::TwiceTheSame, $above->toString());
                }
            }
        }
        $manifest = Manifest::fromEntries($entries);
        if ($manifest->files() === []) {
            throw PackageRefused::because($name, RefusalReason::Empty);
        }

        return [$manifest, $left, $modes];
    }

    /** Of what is in the store already, a version made from another one say. */
    public function inspector(): Inspector
    {
        return new Inspector(
            new PackageContents($this->store),
            $this->clock->now()->format('Y-m-d'),
            $this->types?->types(),
            $this->sites,
        );
    }

    /**
     * @param  array<string, int>  $modes
     * @return array<string, int>
     */
    private static function below(?string $wrapper, array $modes): array
    {
        if ($wrapper === null) {
            return $modes;
        }
        $lifted = [];
        foreach ($modes as $path => $mode) {
            if (str_starts_with((string) $path, "$wrapper/")) {
                $lifted[substr((string) $path, strlen($wrapper) + 1)] = $mode;
            }
        }

        return $lifted;
    }

    private function open(string $file, string $name): Archive
    {
        $magic = (string) @file_get_contents($file, false, null, 0, 6);

        if (str_starts_with($magic, "PK\x03\x04") || str_starts_with($magic, "PK\x05\x06")) {
            return new ZipPackage($file, $name, $this->limits);
        }

        return new TarPackage(
            match (true) {
                str_starts_with($magic, "\x1f\x8b") => new GzipStream($file, $name),
                $magic === "\xfd7zXZ\0" => new XzStream($file, $name),
                // A tar has no mark at its beginning; its first header is checked by its sum.
                filesize($file) >= TarPackage::BLOCK => new PlainStream($file, $name),
                default => throw PackageRefused::because($name, RefusalReason::NotAnArchive),
            },
            (int) filesize($file),
            $name,
            $this->limits,
        );
    }

    private function keep(Archive $archive, ArchiveEntry $entry): ManifestEntry
    {
        $content = $this->store->put($archive->chunks($entry));

        return new ManifestEntry(
            $entry->path,
            EntryKind::File,
            $content->size,
            $entry->modified,
            null,
            $content->sha256,
        );
    }
}
