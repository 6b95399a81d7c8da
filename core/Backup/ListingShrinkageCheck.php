<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\LookAgain;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/**
 * The check of a listing that shows much less than the last look.
 *
 * Servers answer 226 to listings that were cut, or that they could not make; a backup of one would be short, and
 * bringing it back would empty the site. So where much is missing it is looked for over a new connection and by other
 * commands: found, the listing was not whole; not found either, a person has to say that it is right.
 */
final readonly class ListingShrinkageCheck
{
    private const DIRECTORIES = 60;

    private const NAMES = 20;

    /** @param  float  $share  of the known files that may be missing without a question, 0 to 1 */
    public function __construct(
        private TransferPool $pool,
        private float $share = 0.5,
    ) {
    }

    /**
     * @return ListingShrinkage|null null where enough is there
     *
     * @throws TransferFailed when what the listing leaves out is there after all
     */
    public function look(RemotePath $root, Manifest $listed, Manifest $known): ?ListingShrinkage
    {
        $files = $known->files();
        $missing = array_values(
            array_filter($files, static fn (ManifestEntry $file): bool => $listed->get($file->path) === null),
        );
        if ($listed->files() === [] && $files === []) {
            $this->lookFor($root, [], $listed);

            return null;
        }
        if ($missing === [] || count($missing) <= count($files) * $this->share) {
            return null;
        }
        $this->lookFor($root, $missing, $listed);

        return new ListingShrinkage(
            count($files),
            count($files) - count($missing),
            array_map(static fn (ManifestEntry $file): string => $file->path->toString(), array_slice($missing, 0, 20)),
        );
    }

    /** @param  list<ManifestEntry>  $missing */
    private function lookFor(RemotePath $root, array $missing, Manifest $listed): void
    {
        $names = ['' => []];
        foreach ($missing as $file) {
            $directory = (string) $file->path->parent()?->toString();
            $names[$directory] ??= [];
            count($names[$directory]) >= self::NAMES ?: $names[$directory][] = $file->path->name();
        }
        $jobs = $asked = [];
        foreach (array_slice($names, 0, self::DIRECTORIES, true) as $directory => $here) {
            $place = $directory === '' ? $root : RemotePath::fromString("$root/$directory");
            $asked[(string) $place] = $here;
            $jobs[] = new LookAgain($place, $here);
        }
        $this->pool->close(); // Another connection may tell another story.
        $this->pool->run($jobs, static function (Job $job, JobResult $result) use (
            $missing,
            $listed,
            $asked,
        ): void {
            $there = $missing === []
                ? self::leftOut($result->names, $listed)
                : array_values(array_intersect($asked[(string) $job->path], $result->names));
            if ($there !== []) {
                throw new TransferFailed(
                    $job,
                    RemoteFailure::while(
                        "listing $job->path",
                        FailureReason::Incomplete,
                        "$there[0] is there when it is asked for another way, and the listing leaves it out",
                    ),
                );
            }
        });
    }

    /**
     * @param  list<string>  $names  at the top
     * @return list<string> those that the listing does not show; directories without a file are no trouble
     */
    private static function leftOut(array $names, Manifest $listed): array
    {
        return array_values(array_filter(
            $names,
            static fn (string $name): bool => ! TemporaryName::isOne($name) && $listed->get($name) === null,
        ));
    }
}
