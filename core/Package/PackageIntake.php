<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Storage\ContentStore;

/** Opens an archive, puts its contents into the store and says what it is. */
final readonly class PackageIntake
{
    /** Folders and files that operating systems and editors leave in archives; they do not land. */
    private const LEFTOVERS = ['__MACOSX', '.DS_Store', 'Thumbs.db', 'desktop.ini', '.git', '.svn', '.idea', '.vscode'];

    public function __construct(
        private ContentStore $store,
        private ArchiveLimits $limits = new ArchiveLimits,
    ) {
    }

    /**
     * @param  string  $name  the file name people gave it, "pilgrim-stones-1.0.zip"
     *
     * @throws PackageRefused nothing of it is used then
     */
    public function take(string $file, string $name): Inspection
    {
        $archive = $this->open($file, $name);
        $entries = [];
        $left = [];
        foreach ($archive->entries() as $entry) {
            $path = $entry->path->toString();
            if (array_intersect($entry->path->segments(), self::LEFTOVERS) !== []) {
                $left[] = $path;

                continue;
            }
            if (isset($entries[$path]) && ! ($entry->isDirectory && ! $entries[$path]->isFile())) {
                throw PackageRefused::because($name, RefusalReason::TwiceTheSame, $path);
            }
            $entries[$path] = $entry->isDirectory
                ? new ManifestEntry($entry->path, EntryKind::Directory)
                : $this->keep($archive, $entry);
            foreach ($entry->path->ancestors() as $above) {
                $entries[$above->toString()] ??= new ManifestEntry($above, EntryKind::Directory);
                if ($entries[$above->toString()]->isFile()) {
                    throw PackageRefused::because($name, RefusalReason::TwiceTheSame, $above->toString());
                }
            }
        }
        $manifest = Manifest::of($entries);
        if ($manifest->files() === []) {
            throw PackageRefused::because($name, RefusalReason::Empty);
        }
        [$manifest, $wrapper] = Wrapper::lift($manifest);
        [$stem, $version] = self::nameAndVersion($name);

        return new Inspection(
            $stem,
            $version,
            $wrapper,
            $manifest,
            $manifest->startPage(StartPages::USUAL)?->path->toString(),
            self::worstFirst([
                ...Findings::of($manifest, $wrapper, $left),
                ...NameFindings::of($manifest, $this->read(...)),
                ...ReferenceFindings::of($manifest, $this->read(...)),
            ]),
        );
    }

    private function read(ManifestEntry $entry): string
    {
        return (string) file_get_contents($this->store->file((string) $entry->sha256));
    }

    /**
     * @param  list<PackageFinding>  $findings
     * @return list<PackageFinding>
     */
    private static function worstFirst(array $findings): array
    {
        $order = [Severity::Stop, Severity::Warn, Severity::Note];
        usort(
            $findings,
            static fn (PackageFinding $a, PackageFinding $b): int => array_search($a->severity, $order, true)
                <=> array_search($b->severity, $order, true),
        );

        return $findings;
    }

    private function open(string $file, string $name): Archive
    {
        $magic = (string) @file_get_contents(
            $file,
            false,
            null,
            0,
            4,
        );

        return match (true) {
            str_starts_with($magic, "PK\x03\x04"), str_starts_with($magic, "PK\x05\x06") => new ZipPackage(
                $file,
                $name,
                $this->limits,
            ),
            str_starts_with($magic, "\x1f\x8b") => new TarPackage($file, $name, $this->limits),
            default => throw PackageRefused::because($name, RefusalReason::NotAnArchive),
        };
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

    /** @return array{string, string|null} */
    private static function nameAndVersion(string $name): array
    {
        $stem = preg_replace('/\.(zip|tar\.gz|'
            .'tgz)\z/i', '', RelativePath::tryFromString($name)?->name() ?? $name) ?? $name;

        return preg_match('/\A(.+?)[-_ ]v?(\d+(?:\.\d+)*(?:[-.]?(?:rc|beta|alpha)\.?\d*)?)\z/i', $stem, $match) === 1
            ? [$match[1], $match[2]]
            : [$stem, null];
    }
}
