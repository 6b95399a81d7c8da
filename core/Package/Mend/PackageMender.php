<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Mend;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\PackageContents;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Reference\Documents;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;

/** Makes a package from another one, with what was chosen mended. The package it is made from stays as it is. */
final readonly class PackageMender
{
    public function __construct(private ContentStore $store)
    {
    }

    /**
     * Reads only.
     *
     * @param  list<Mend>  $mends
     *
     * @throws StoreFailure
     */
    public function plan(Manifest $manifest, array $mends): MendPlan
    {
        $names = new NewNames($manifest, $mends);
        [$texts, $changes, $notDone] = $this->texts($manifest, $mends, $names);
        foreach ($manifest->files() as $entry) {
            $path = $entry->path->toString();
            $to = $names->of($path);
            if ($to !== $path) {
                $changes[] = new MendChange($names->why($path), $path, $to);
            }
        }

        return new MendPlan($manifest, $names, $texts, $changes, $notDone);
    }

    /**
     * @return Manifest of the mended package; its texts are in the store
     *
     * @throws StoreFailure
     */
    public function carryOut(MendPlan $plan): Manifest
    {
        $entries = [];
        foreach ($plan->manifest->all() as $entry) {
            $path = $entry->path->toString();
            $to = $plan->names->of($path);
            if ($to !== null) {
                $entries[] = $this->changed($entry, $plan->texts[$path] ?? null)->at(RelativePath::fromString($to));
            }
        }

        return Manifest::fromEntries($entries);
    }

    private function changed(ManifestEntry $entry, ?string $text): ManifestEntry
    {
        if ($text === null) {
            return $entry;
        }
        $kept = $this->store->put([$text]);

        return new ManifestEntry(
            $entry->path,
            EntryKind::File,
            $kept->size,
            $entry->modified,
            $entry->mode,
            $kept->sha256,
        );
    }

    /**
     * @param  list<Mend>  $mends
     * @return array{array<string, string>, list<MendChange>, list<Mend>} texts that change, by path
     */
    private function texts(Manifest $manifest, array $mends, NewNames $names): array
    {
        $byFile = [];
        foreach ($mends as $mend) {
            if ($mend->finding->offset !== null) {
                $byFile[(string) $mend->finding->path][] = $mend;
            }
        }
        [$texts, $changes, $notDone] = [[], [], []];
        $contents = new PackageContents($this->store);
        foreach ($names->isRenaming() ? $manifest->files() : self::only($manifest, $byFile) as $entry) {
            $path = $entry->path->toString();
            if ($names->of($path) === null || ! Documents::isOne($path, $entry->size)) {
                continue;
            }
            $text = new MendedText($path, $contents->text($entry), $names);
            foreach ($byFile[$path] ?? [] as $mend) {
                $text->correct($mend) || $notDone[] = $mend;
            }
            $names->isRenaming() && $text->follow();
            if ($text->changes !== []) {
                $texts[$path] = $text->result();
                array_push($changes, ...$text->changes);
            }
        }

        return [$texts, $changes, $notDone];
    }

    /**
     * @param  array<string, list<Mend>>  $byFile
     * @return list<ManifestEntry>
     */
    private static function only(Manifest $manifest, array $byFile): array
    {
        return array_values(array_filter(array_map(
            static fn (string|int $path): ?ManifestEntry => $manifest->get((string) $path),
            array_keys($byFile),
        )));
    }
}
