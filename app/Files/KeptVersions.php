<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\Backup;
use App\Models\BackupState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FileVersion;
use App\Models\Person;
use App\Models\Site;
use App\Storage\RunFiles;
use Carbon\CarbonImmutable;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;

/** Earlier versions of a file, wherever they are kept: by deployments, by changes by hand, in backups. */
final readonly class KeptVersions
{
    /** So many of each are looked through, the newest. */
    private const LOOKED_THROUGH = 15;

    private const SHOWN = 10;

    public function __construct(
        private BackupShelf $shelf,
        private RunFiles $files,
        private ContentStore $store,
    ) {
    }

    /**
     * @param  ManifestEntry|null  $now  as it was seen last; null where it is not there
     * @param  list<int>  $unread  numbers of backups that could not be looked into are added to it
     * @return list<KeptVersion> each contents once, newest first
     */
    public function of(FilePlace $place, RemotePath $path, ?ManifestEntry $now, array &$unread = []): array
    {
        $site = $place->served();
        $all = [
            ...($site === null ? [] : $this->deployed($site, $path, $now)),
            ...self::byHand($place, $path),
            ...($site === null ? [] : $this->backedUp($site, $path, $unread)),
        ];
        $once = [];
        foreach ($all as $version) {
            // Who brought it says more than which backup holds it.
            $once[$version->sha256] ??= $this->store->has($version->sha256) ? $version : null;
        }
        $versions = array_values(array_filter($once));
        usort($versions, static fn (KeptVersion $a, KeptVersion $b): int => $b->at <=> $a->at);

        return array_slice($versions, 0, self::SHOWN);
    }

    /** The one of these contents; null where nothing of this file holds them, or they are no longer kept. */
    public function one(FilePlace $place, RemotePath $path, string $sha256): ?KeptVersion
    {
        foreach ($this->of($place, $path, null) as $version) {
            if ($version->sha256 === $sha256) {
                return $version;
            }
        }

        return null;
    }

    /** @return list<KeptVersion> as deployments left it */
    private function deployed(Site $site, RemotePath $path, ?ManifestEntry $now): array
    {
        $newest = $site->deployments()
            ->with([...Deployment::titled(), 'person'])
            ->where('state', DeploymentState::Proven)
            ->latest('ended_at')
            ->latest('id')
            ->limit(self::LOOKED_THROUGH)
            ->get();
        $versions = [];
        foreach ($newest as $deployment) {
            $deployment->setRelation('site', $site);
            $below = $deployment->runPlace()->root->toward($path)?->toString();
            $left = $below === null ? null : $this->files->leftOf($deployment, $below);
            if ($left?->sha256 !== null) {
                $versions[] = self::version(
                    $left,
                    $deployment->ended_at ?? $deployment->created_at,
                    "as “{$deployment->title()}” left it",
                    $deployment->person,
                    "/deployments/$deployment->id",
                )->asNow($now !== null && $now->sha256 === null && $left->withSha256(null)->looksLike($now));
            }
        }

        return $versions;
    }

    /** @return list<KeptVersion> as it was before changes by hand */
    private static function byHand(FilePlace $place, RemotePath $path): array
    {
        $held = FileVersion::with('change.person')
            ->where(['account_id' => $place->account->id, 'path_hash' => FileVersion::hash($path)])
            ->whereNotNull('sha256')
            ->where('held_until', '>', now())
            ->latest('id')
            ->limit(5 * self::LOOKED_THROUGH)
            ->get();
        $versions = [];
        foreach ($held as $one) {
            $before = $one->wasBefore();
            $before?->sha256 === null || $versions[] = self::version(
                $before,
                $one->at,
                "before “{$one->change->title}”",
                $one->change->person,
                "/file-changes/$one->change_id",
            );
        }

        return $versions;
    }

    /**
     * @param  list<int>  $unread
     * @return list<KeptVersion> as backups hold it
     */
    private function backedUp(Site $site, RemotePath $path, array &$unread): array
    {
        $newest = Backup::with('person')
            ->where(['site_id' => $site->id, 'state' => BackupState::Verified])
            ->latest('id')
            ->limit(self::LOOKED_THROUGH)
            ->get();
        $versions = [];
        foreach ($newest as $backup) {
            $backup->setRelation('site', $site);
            $below = $backup->rootPath()->toward($path)?->toString();
            try {
                $entry = $below === null ? null : $this->shelf->entry((string) $backup->name, $below);
            } catch (StoreFailure) {
                $unread[] = $backup->id;

                continue;
            }
            $entry?->sha256 === null || $versions[] = self::version(
                $entry,
                $backup->verified_at ?? $backup->created_at,
                "in the backup {$backup->why()}",
                $backup->person,
                "/backups?site=$site->id",
            );
        }

        return $versions;
    }

    private static function version(
        ManifestEntry $entry,
        \DateTimeInterface $at,
        string $from,
        ?Person $who,
        string $url,
    ): KeptVersion {
        return new KeptVersion(
            (string) $entry->sha256,
            $entry->size,
            $entry->mode,
            CarbonImmutable::instance($at),
            $from,
            $who?->shortName(),
            $url,
        );
    }
}
