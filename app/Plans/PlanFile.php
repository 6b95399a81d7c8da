<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\GuardedFile;
use App\Storage\RunFiles;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\PlanFilter;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Storage\ContentStore;

/** One file of a plan, with what it holds on each side. */
final readonly class PlanFile
{
    /** What is larger is not fetched for looking, in bytes. */
    public const LARGEST = 2_000_000;

    public function __construct(private RunFiles $files, private ContentStore $store)
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

    /** Null where there is nothing, where it is too large to be looked at, or what it held is not in the store. */
    public function bytes(PlanItem $item, PlanSide $side): ?string
    {
        $entry = self::looked($item, $side);

        return $entry?->sha256 !== null && $this->store->has($entry->sha256)
            ? $this->store->text($entry->sha256)
            : null;
    }

    /** Whether what is on the server has to be fetched to be looked at. */
    public function isElsewhere(PlanItem $item): bool
    {
        return self::looked($item, PlanSide::Live) !== null && $this->bytes($item, PlanSide::Live) === null;
    }

    private static function looked(PlanItem $item, PlanSide $side): ?ManifestEntry
    {
        $entry = $side->of($item);

        return $entry?->isFile() === true && $entry->size <= self::LARGEST ? $entry : null;
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
}
