<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\ListDirectory;

/** Lists a directory with all below it. A directory that could not be listed is a failure, never an empty one. */
final readonly class Surveyor
{
    /**
     * @param  (\Closure(int, int): void)|null  $hear  is told the directories and entries seen so far; may throw
     *     Cancelled
     */
    public function __construct(
        private TransferPool $pool,
        private SurveyLimits $limits = new SurveyLimits,
        private ?\Closure $hear = null,
    ) {
    }

    /**
     * Links are noted and not followed. Temporary files of ours are told apart, see TemporaryName.
     *
     * @throws TransferFailed
     * @throws SurveyStopped
     * @throws PathRefused for a name that we cannot hold
     */
    public function survey(RemotePath $root): Survey
    {
        $seen = new SurveyedTree($root, $this->limits);
        $until = hrtime(true) + $this->limits->seconds * 1_000_000_000;
        $level = [''];
        while ($level !== []) {
            $next = [];
            $jobs = (static function () use ($level, $root): \Generator {
                foreach ($level as $below) {
                    yield new ListDirectory($below === '' ? $root : $root->join(RelativePath::fromString($below)));
                }
            })();
            $this->pool->run($jobs, function (Job $job, JobResult $result) use ($seen, $until, &$next): void {
                array_push($next, ...$seen->take($job->path, $result->entries));
                $this->hear === null ?: ($this->hear)($seen->directories, $seen->count());
                if (hrtime(true) > $until) {
                    throw SurveyStopped::tooLong($this->limits->seconds, $seen->count());
                }
            });
            $level = $next;
        }

        return $seen->survey();
    }

    public static function entry(RelativePath $path, RemoteEntry $found): ManifestEntry
    {
        return new ManifestEntry(
            $path,
            $found->kind,
            $found->kind === EntryKind::File ? $found->size ?? 0 : 0,
            $found->exact ? $found->modified : null,
            $found->mode,
        );
    }
}
