<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Connection\EntryKind;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Manifest;
use Cellarium\Core\Plan\ManifestEntry;
use Cellarium\Core\Transfer\Job;
use Cellarium\Core\Transfer\JobResult;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/** Lists a directory with all below it. A directory that could not be listed is a failure, never an empty one. */
final readonly class Surveyor
{
    public function __construct(private TransferPool $pool)
    {
    }

    /**
     * Links are noted and not followed. Temporary files of ours are told apart, see TemporaryName.
     *
     * @throws TransferFailed
     * @throws PathRefused for a name that we cannot hold
     */
    public function survey(RemotePath $root): Survey
    {
        $entries = [];
        $temporary = [];
        $level = [''];
        while ($level !== []) {
            $next = [];
            $jobs = array_map(static fn (string $below): Job => Job::list($below === '' ? $root : $root->join(RelativePath::fromString($below))), $level);
            $this->pool->run($jobs, static function (Job $job, JobResult $result) use ($root, &$entries, &$temporary, &$next): void {
                $below = $root->toward($job->path)?->toString();
                foreach ($result->entries as $found) {
                    $path = RelativePath::fromString($below === null ? $found->name : "$below/$found->name");
                    if (TemporaryName::isOne($found->name)) {
                        $temporary[] = $root->join($path);

                        continue;
                    }
                    $entries[] = self::entry($path, $found);
                    if ($found->kind === EntryKind::Directory) {
                        $next[] = $path->toString();
                    }
                }
            });
            $level = $next;
        }

        return new Survey(Manifest::of($entries), $temporary);
    }

    private static function entry(RelativePath $path, RemoteEntry $found): ManifestEntry
    {
        return new ManifestEntry($path, $found->kind, $found->kind === EntryKind::File ? $found->size ?? 0 : 0, $found->exact ? $found->modified : null, $found->mode);
    }
}
