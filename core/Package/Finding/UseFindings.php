<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Contents\PackageContents;
use Cellarium\Core\Package\Contents\SensitiveNames;
use Cellarium\Core\Package\Contents\WellKnownFiles;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Reference\References;
use Cellarium\Core\Words\Bytes;
use Cellarium\Core\Words\Count;

/** Files that nothing refers to, copies among them, and what is larger than visitors need it. */
final readonly class UseFindings
{
    /** Sources that are put together before anything is served; they name each other in ways of their own. */
    private const SOURCE = '/\.(?:s[ac]ss|less|styl|tsx?|jsx|coffee|vue|svelte)\z/i';

    private const FOR_BUILDING = ['node_modules', 'bower_components', '.sass-cache', '.parcel-cache'];

    /** Of these so many are told; a site with more is not held together by references. */
    private const MOST = 200;

    private const LARGE_FROM_BYTES = 3_000_000;

    private const MOST_LARGE = 10;

    /** Screens show up to twice the pixels; more than three times are nobody's. */
    private const TOO_WIDE = 3;

    private const OVERSIZED_FROM_BYTES = 100_000;

    /** @var array<string, true> files that something refers to */
    private array $used;

    /** @param  string  $folder  that is the root of the site, "" is the top */
    public function __construct(
        private Manifest $manifest,
        private PackageContents $contents,
        private References $references,
        private Mentions $mentions,
        private string $folder = '',
    ) {
        $used = [];
        foreach ($references->links as $targets) {
            $used += array_fill_keys(array_keys($targets), true);
        }
        $this->used = $used;
    }

    /** @return list<PackageFinding> */
    public function all(): array
    {
        return [...$this->copies(), ...$this->forBuilding(), ...$this->unused(), ...$this->large(), ...$this->wide()];
    }

    /** @return list<PackageFinding> the same of a part: what refers to it may lie on the server */
    public function ofAPart(): array
    {
        return [...$this->copies(), ...$this->forBuilding(), ...$this->large(), ...$this->wide()];
    }

    /** @return list<PackageFinding> */
    private function copies(): array
    {
        $findings = [];
        foreach ($this->manifest->files() as $file) {
            if ($this->isCopy($file) && ! $this->isUsed($file)) {
                $findings[] = new PackageFinding(
                    FindingCode::LeftoverCopy,
                    Severity::Warn,
                    'is what an editor leaves, or a copy that nothing refers to; everybody could fetch it.',
                    "$file->path",
                );
            }
        }

        return $findings;
    }

    private function isCopy(ManifestEntry $file): bool
    {
        return preg_match(SensitiveNames::COPY, $file->path->name()) === 1;
    }

    private function isUsed(ManifestEntry $file): bool
    {
        return isset($this->used["$file->path"]);
    }

    /** @return list<PackageFinding> the directories that lie the least deep, where no page loads out of them */
    private function forBuilding(): array
    {
        $findings = [];
        $above = null;
        foreach ($this->manifest->all() as $entry) {
            $path = $entry->path->toString();
            if ($entry->isFile() || ! in_array($entry->path->name(), self::FOR_BUILDING, true)) {
                continue;
            }
            if (($above === null || ! str_starts_with($path, "$above/")) && ! $this->isLoadedFrom($path)) {
                $above = $path;
                $findings[] = new PackageFinding(
                    FindingCode::LeftoverDevelopment,
                    Severity::Warn,
                    'is what a site is built with ('.self::sum($this->below($path)).'); visitors never need it.',
                    $path,
                );
            }
        }

        return $findings;
    }

    private function isLoadedFrom(string $directory): bool
    {
        foreach ($this->references->links as $from => $targets) {
            if (! str_starts_with((string) $from, "$directory/")) {
                foreach ($targets as $target => $times) {
                    if (str_starts_with((string) $target, "$directory/")) {
                        return true;
                    }
                }
            }
        }

        return false;
    }

    /** @return list<PackageFinding> whole directories at once where nothing in them is referred to */
    private function unused(): array
    {
        // A program picks its files by itself; without pages there is nothing that could refer.
        if ($this->references->links === [] || $this->manifest->get(ltrim("$this->folder/index.php", '/')) !== null) {
            return [];
        }
        $findings = [];
        foreach ($this->idleGroups() as $group => $files) {
            $findings[] = self::idle($group, $files);
        }

        return array_slice($findings, 0, self::MOST);
    }

    /** @return iterable<string, non-empty-list<ManifestEntry>> by the directory that holds nothing else, or the file */
    private function idleGroups(): iterable
    {
        $idle = [];
        $busy = [];
        foreach ($this->manifest->files() as $file) {
            if ($this->isIdle($file)) {
                $idle[] = $file;
            } else {
                $busy += array_fill_keys(array_map(strval(...), $file->path->ancestors()), true);
            }
        }
        $groups = [];
        foreach ($idle as $file) {
            $free = array_filter(
                $file->path->ancestors(),
                static fn (RelativePath $above): bool => ! isset($busy["$above"]),
            );
            $groups[(string) (array_values($free)[0] ?? $file->path)][] = $file;
        }
        foreach ($groups as $group => $files) {
            // One file is told by its own name.
            yield (string) (count($files) === 1 ? $files[0]->path : $group) => $files;
        }
    }

    private function isIdle(ManifestEntry $file): bool
    {
        $path = $file->path->toString();

        return ! $this->isUsed($file)
            && ! $this->mentions->has($file->path->name())
            // A name without an ending is a word like any other: nobody can tell where it is meant.
            && str_contains($file->path->name(), '.')
            && ! in_array($file->path->name(), StartPages::USUAL, true)
            && ! WellKnownFiles::isOne($path)
            && preg_match(self::SOURCE, $path) !== 1
            && ! $this->isCopy($file)
            && array_intersect($file->path->segments(), self::FOR_BUILDING) === [];
    }

    /** @param  non-empty-list<ManifestEntry>  $files */
    private static function idle(string $group, array $files): PackageFinding
    {
        $isDirectory = $files[0]->path->toString() !== $group;

        return new PackageFinding(
            FindingCode::FileUnused,
            Severity::Note,
            $isDirectory
                ? 'holds '.self::sum($files).', and nothing refers to any of it.'
                : 'is referred to by nothing in the package ('.Bytes::words($files[0]->size).').',
            $group,
        );
    }

    /** @return list<PackageFinding> the largest first */
    private function large(): array
    {
        $files = array_filter(
            $this->manifest->files(),
            static fn (ManifestEntry $file): bool => $file->size >= self::LARGE_FROM_BYTES,
        );
        usort($files, static fn (ManifestEntry $a, ManifestEntry $b): int => $b->size <=> $a->size);

        return array_map(static fn (ManifestEntry $file): PackageFinding => new PackageFinding(
            FindingCode::FileLarge,
            Severity::Note,
            'is '.Bytes::words($file->size).', among the largest here.',
            "$file->path",
        ), array_slice($files, 0, self::MOST_LARGE));
    }

    /** @return list<PackageFinding> */
    private function wide(): array
    {
        $findings = [];
        foreach ($this->references->shown as $path => [$width, $page, $line]) {
            $file = $this->manifest->get((string) $path);
            if ($file === null || $file->size < self::OVERSIZED_FROM_BYTES) {
                continue;
            }
            $pixels = $this->contents->pixels($file);
            if ($pixels !== null && $pixels[0] >= self::TOO_WIDE * $width) {
                $findings[] = new PackageFinding(
                    FindingCode::ImageOversized,
                    Severity::Note,
                    'is '.number_format($pixels[0]).' pixels wide ('.Bytes::words($file->size).') and shown '
                        .number_format($width)." wide at the most, in $page line $line.",
                    "$file->path",
                );
            }
        }

        return $findings;
    }

    /** @return list<ManifestEntry> */
    private function below(string $directory): array
    {
        return array_values(array_filter(
            $this->manifest->files(),
            static fn (ManifestEntry $file): bool => str_starts_with("$file->path", "$directory/"),
        ));
    }

    /** @param  list<ManifestEntry>  $files */
    private static function sum(array $files): string
    {
        $bytes = array_sum(array_map(static fn (ManifestEntry $file): int => $file->size, $files));

        return Count::words(count($files), 'file').', '.Bytes::words($bytes);
    }
}
