<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Deployment;
use App\Models\GuardedFile;
use App\Storage\RunFiles;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\RemoteText;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\PlanFilter;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Storage\ContentStore;

/** One file of a plan, with what it holds on each side. */
final readonly class PlanFile
{
    /** What is larger is not fetched for looking, in bytes. */
    private const LARGEST = 2_000_000;

    public function __construct(private RunFiles $files, private Connections $connections, private ContentStore $store)
    {
    }

    /** @throws Problem when the plan has no such file */
    public function item(Deployment $deployment, string $path): PlanItem
    {
        $relative = RelativePath::tryFromString($path);
        $directory = (string) $relative?->parent();
        foreach ($this->files->planReader($deployment)->files($directory, new PlanFilter) as $item) {
            if ((string) $item->path === (string) $relative) {
                return $item;
            }
        }
        throw new Problem("$path is not in this plan. It may have been made anew; look at it again.");
    }

    /** Null where there is nothing, where it is too large to be looked at, or what it held is no longer here. */
    public function bytes(Deployment $deployment, PlanItem $item, PlanSide $side): ?string
    {
        $entry = $side->of($item);
        if ($entry === null || ! $entry->isFile() || $entry->size > self::LARGEST) {
            return null;
        }
        if ($entry->sha256 !== null && $this->store->has($entry->sha256)) {
            return $this->store->text($entry->sha256);
        }

        return $side === PlanSide::Live ? $this->read($deployment, $entry) : null;
    }

    /**
     * Whether passwords may stand in it, and whoever looks may not see them.
     *
     * @param  array<array-key, string|null>  $bytes  of its sides
     */
    public function isHidden(Deployment $deployment, PlanItem $item, array $bytes): bool
    {
        if (GuardedFile::areShown()) {
            return false;
        }
        $path = $deployment->runPlace()->root->join($item->path);
        foreach ([null, ...$bytes] as $side) {
            if (GuardedFile::isOneOf($deployment->site->account_id, $path, $side)) {
                return true;
            }
        }

        return false;
    }

    private function read(Deployment $deployment, ManifestEntry $entry): ?string
    {
        try {
            return RemoteText::of(
                $this->connections->remote($deployment->site->account),
                $deployment->runPlace()->root->join($entry->path),
                self::LARGEST,
            );
        } catch (RemoteFailure $failure) {
            throw new Problem(Problem::words($failure));
        }
    }
}
