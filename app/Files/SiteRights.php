<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\Errand;
use App\Models\Site;
use App\Storage\RunFiles;
use App\Storage\RunLimits;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\RightsCheck;
use Cellarium\Core\File\RightsFault;
use Cellarium\Core\File\WrongRights;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Type\InstalledPackage;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferPool;

/** The rights of all that lies below the document root of a site. */
final readonly class SiteRights
{
    public function __construct(private FileWorkers $workers, private RunFiles $files)
    {
    }

    /**
     * @param  list<InstalledPackage>  $installed
     * @param  \Closure(): mixed  $beat  called often; may throw Cancelled
     * @return array<string, mixed> to be kept with the errand that asked for it; see wrong()
     */
    public function check(Site $site, array $installed, \Closure $beat): array
    {
        $live = $this->workers->with(
            $site->account,
            $beat,
            static fn (TransferPool $pool): Manifest => (new Surveyor($pool, RunLimits::survey()))
                ->survey($site->root())
                ->manifest,
        );

        return [
            'checked' => count($live->all()),
            'told' => count(array_filter(array_map(
                static fn (ManifestEntry $entry): bool => $entry->mode !== null,
                $live->all(),
            ))),
            'systems' => array_values(array_unique(array_map(
                static fn (InstalledPackage $one): string => $one->type->label,
                $installed,
            ))),
            'wrong' => array_map(static fn (WrongRights $one): array => [
                'entry' => $one->entry->toArray(),
                'fault' => $one->fault->value,
                'wanted' => $one->wanted,
            ], (new RightsCheck($installed, $this->deployed($site)))->of($live)),
        ];
    }

    private function deployed(Site $site): ?Manifest
    {
        $last = $site->lastDeployment;

        return $last?->runPlace()->root->equals($site->root()) === true ? $this->files->left($last) : null;
    }

    /** @return list<WrongRights> paths below the document root */
    public static function wrong(Errand $errand): array
    {
        return array_map(static fn (array $one): WrongRights => new WrongRights(
            ManifestEntry::fromFields(new JsonFields($one['entry'])),
            RightsFault::from($one['fault']),
            $one['wanted'],
        ), $errand->result['wrong'] ?? []);
    }

    public static function step(Site $site, WrongRights $one): FileChange
    {
        $path = $site->root()->join($one->entry->path);

        return FileChange::setMode(
            $path,
            $one->entry->at(RelativePath::fromString(ltrim($path->toString(), '/'))),
            $one->wanted,
        );
    }
}
