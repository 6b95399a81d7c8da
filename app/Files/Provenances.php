<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\FileVersion;
use App\Storage\RunFiles;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\File\FileChangeKind;
use Cellarium\Core\File\Provenance;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Surveyor;

/** Tells of each file in a directory where it comes from, from what deployments and changes by hand have left there. */
final readonly class Provenances
{
    /** So many deployments back it is looked who brought a file. */
    private const MOST_DEPLOYMENTS = 12;

    public function __construct(private RunFiles $files)
    {
    }

    /**
     * @param  list<RemoteEntry>  $found
     * @return list<FileEntry>
     */
    public function tell(FilePlace $place, array $found): array
    {
        [$bringers, $left, $since] = $this->deployed($place);
        $byHand = $this->byHand($place);
        $entries = [];
        foreach ($found as $entry) {
            $path = ltrim($place->at->child($entry->name)->toString(), '/');
            $now = Surveyor::entry(RelativePath::fromString($path), $entry);
            $version = $byHand[$entry->name] ?? null;
            $isNewer = $version !== null && ($since === null || $version->at->greaterThanOrEqualTo($since));
            $entries[] = FileEntry::fromEntry(
                $entry,
                $entry->kind === EntryKind::Directory && isset($bringers[$entry->name])
                    ? Provenance::Package
                    : Provenance::fromEntries(
                        $now,
                        isset($bringers[$entry->name]),
                        $left[$entry->name] ?? null,
                        $isNewer ? $version->isAfter() : null,
                    ),
                $bringers[$entry->name] ?? null,
            );
        }

        return $entries;
    }

    /**
     * Who brought what lies right in a directory, and how the newest deployment left it.
     *
     * @return array{array<string, int>, array<string, ManifestEntry>, \DateTimeInterface|null} by name; and when that
     *     was
     */
    private function deployed(FilePlace $place): array
    {
        $site = $place->served();
        $newest = $site?->deployments()
            ->where('state', DeploymentState::Proven)
            ->latest('ended_at')
            ->latest('id')
            ->limit(self::MOST_DEPLOYMENTS)
            ->get() ?? [];
        $bringers = [];
        $left = null;
        $since = null;
        foreach ($newest as $deployment) {
            $deployment->setRelation('site', $site);
            $below = self::below($deployment, $place->at);
            if ($below === null) {
                continue;
            }
            if ($left === null && $this->files->hasLeft($deployment)) {
                $left = $this->files->leftIn($deployment, $below);
                $since = $deployment->ended_at;
            }
            if (in_array($deployment->kind, [DeploymentKind::Deploy, DeploymentKind::Files], true)) {
                foreach ($this->files->broughtInto($deployment, $below) as $name) {
                    $bringers[$name] ??= $deployment->id;
                }
            }
        }

        return [$bringers, $left ?? [], $since];
    }

    /** The directory as the deployment's paths begin; "" for where they do; null for one elsewhere. */
    private static function below(Deployment $deployment, RemotePath $at): ?string
    {
        $root = $deployment->runPlace()->root;

        return $root->equals($at) ? '' : $root->toward($at)?->toString();
    }

    /** @return array<string, FileVersion> the newest change of each name in the directory */
    private function byHand(FilePlace $place): array
    {
        $newest = FileVersion::where([
            'account_id' => $place->account->id,
            'directory_hash' => FileVersion::hash($place->at),
        ])
            // Other rights make it nobody else's.
            ->where('kind', '!=', FileChangeKind::SetMode)
            ->groupBy('path_hash')
            ->selectRaw('MAX(id)');
        $versions = [];
        foreach (FileVersion::whereIn('id', $newest)->get(['id', 'path', 'after', 'at']) as $version) {
            $versions[RemotePath::fromString($version->path)->name()] = $version;
        }

        return $versions;
    }
}
