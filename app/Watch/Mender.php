<?php

declare(strict_types=1);

namespace App\Watch;

use App\Failure\Problem;
use App\Files\FileWorkers;
use App\Models\DamagedContent;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use App\Storage\RunFiles;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Job\KeepFile;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/** Fetches damaged contents again from a live site that still has them; the hash says whether it is them. */
final readonly class Mender
{
    public function __construct(private ContentStore $store, private FileWorkers $workers, private RunFiles $files)
    {
    }

    public function mend(DamagedContent $damaged): void
    {
        if ($this->store->isIntact($damaged->sha256)) {
            $this->mended($damaged, 'kept anew by a backup or a package');

            return;
        }
        $said = [];
        foreach (array_unique(array_filter(array_column($damaged->held_in, 'site'))) as $number) {
            $site = Site::with('account.client', 'account.sites')->find($number);
            $said[] = $site === null ? null : $this->from($site, $damaged);
            if ($damaged->mended_at !== null) {
                return;
            }
        }
        if ($damaged->held_in === [] && ! $this->store->has($damaged->sha256)) {
            $damaged->delete(); // Nothing referred to it, and it was cleared away.

            return;
        }
        $damaged->update(['trouble' => mb_substr(implode(' ', array_unique(array_filter($said))), 0, 1000) ?: null]);
    }

    /** @return string|null why it could not be had from there */
    private function from(Site $site, DamagedContent $damaged): ?string
    {
        $root = $site->applicationRoot();
        $known = array_values(array_filter(
            $this->files->known($site, $root)->manifest->files(),
            static fn (ManifestEntry $file): bool => $file->sha256 === $damaged->sha256,
        ));
        if ($known === []) {
            return "$site->domain has another version by now.";
        }
        try {
            $this->workers->with(
                $site->account,
                static fn (): bool => true,
                fn (TransferPool $pool) => $this->fetch($pool, $root, $known[0]),
            );
        } catch (TransferFailed|StoreFailure|Problem $failure) {
            return "$site->domain: ".Problem::words($failure);
        }
        if (! $this->store->isIntact($damaged->sha256, $known[0]->size)) {
            return "$site->domain has other bytes at {$known[0]->path} than were known.";
        }
        $this->mended($damaged, "{$known[0]->path} of $site->domain");

        return null;
    }

    private function fetch(TransferPool $pool, RemotePath $root, ManifestEntry $file): void
    {
        $this->store->begin();
        $pool->run([new KeepFile($root->join($file->path), $file->size, $file->path->toString())]);
    }

    private function mended(DamagedContent $damaged, string $from): void
    {
        $damaged->update(['mended_at' => now(), 'mended_from' => $from, 'trouble' => null]);
        Record::write(
            RecordKind::ContentsMended,
            "A stored file that was damaged is whole again, from $from: {$damaged->where()}",
            null,
            ['sha256' => $damaged->sha256],
        );
    }
}
