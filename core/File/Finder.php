<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Package\SensitiveContent;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\Job\FetchFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\ListDirectory;
use Cellarium\Core\Transfer\SurveyedTree;
use Cellarium\Core\Transfer\SurveyLimits;
use Cellarium\Core\Transfer\SurveyStopped;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/**
 * Looks for files from a directory down, over as many connections as there are. Links are not followed.
 *
 * A directory or a file that the server does not give keeps the others from nothing; it is told.
 */
final readonly class Finder
{
    /**
     * @param  string  $scratch  an empty directory of ours that files are read into; nothing of ours is left there
     * @param  \Closure(FileMatches): void  $hear  told after each directory and file; may throw Cancelled
     */
    public function __construct(
        private TransferPool $pool,
        private string $scratch,
        private \Closure $hear,
        private SurveyLimits $limits = new SurveyLimits,
    ) {
    }

    /**
     * @throws TransferFailed where the reason lies in the server or the way there
     * @throws SurveyStopped
     * @throws Cancelled
     */
    public function find(RemotePath $from, FileQuery $fileQuery, FileMatches $findings = new FileMatches): FileMatches
    {
        $seen = new SurveyedTree($from, $this->limits);
        $until = hrtime(true) + $this->limits->seconds * 1_000_000_000;
        $level = [$from];
        while ($level !== [] && ! $findings->isCut) {
            $next = [];
            $texts = [];
            $this->note($findings, $this->pool->runAll(
                array_map(static fn (RemotePath $at): Job => new ListDirectory($at), $level),
                function (
                    Job $job,
                    JobResult $result,
                ) use ($fileQuery, $findings, $seen, $until, &$next, &$texts): void {
                    $entries = $this->named($job->path, $result->entries, $findings);
                    foreach ($seen->take($job->path, $entries) as $below) {
                        $next[] = $seen->root->join(RelativePath::fromString($below));
                    }
                    $findings->directories++;
                    array_push($texts, ...$this->fitting($job->path, $entries, $fileQuery, $findings));
                    ($this->hear)($findings);
                    hrtime(true) < $until
                        || throw SurveyStopped::tooLong($this->limits->seconds, $findings->names);
                },
            ));
            $this->read($texts, $fileQuery, $findings);
            $level = $next;
        }

        return $findings;
    }

    /**
     * Those that can be held here.
     *
     * @param  list<RemoteEntry>  $entries
     * @return list<RemoteEntry>
     */
    private function named(RemotePath $directory, array $entries, FileMatches $findings): array
    {
        $held = [];
        foreach ($entries as $entry) {
            try {
                $directory->child($entry->name);
                $held[] = $entry;
            } catch (PathRefused $refused) {
                $findings->unread[] = [$directory->toString(), $refused->getMessage()];
            }
        }

        return $held;
    }

    /**
     * @param  list<RemoteEntry>  $entries
     * @return list<FoundFile> that are to be read before it is known
     */
    private function fitting(RemotePath $directory, array $entries, FileQuery $fileQuery, FileMatches $findings): array
    {
        $texts = [];
        foreach ($entries as $entry) {
            if (TemporaryName::isOne($entry->name)) {
                continue;
            }
            $findings->names++;
            if (! $fileQuery->fits($entry)) {
                continue;
            }
            $found = new FoundFile($directory->child($entry->name), $entry);
            if ($fileQuery->text === '') {
                $findings->add($found);
            } elseif (TextFile::mayBeOne($entry->name)) {
                $entry->size > $fileQuery->mostText ? $findings->tooLarge++ : $texts[] = $found;
            }
        }

        return $texts;
    }

    /** @param  list<FoundFile>  $texts */
    private function read(array $texts, FileQuery $fileQuery, FileMatches $findings): void
    {
        $byPath = [];
        foreach ($texts as $number => $found) {
            $byPath[$found->path->toString()] = [$found, "$this->scratch/$number"];
        }
        $jobs = array_map(
            static fn (array $one): Job => new FetchFile(
                $one[0]->path,
                $one[1],
                $one[0]->entry->size ?? 0,
                $one[0]->path->toString(),
            ),
            array_values($byPath),
        );
        $this->note($findings, $this->pool->runAll($jobs, function (
            Job $job,
        ) use ($byPath, $fileQuery, $findings): void {
            [$found, $local] = $byPath[$job->path->toString()];
            $bytes = (string) file_get_contents($local);
            unlink($local);
            $findings->read++;
            try {
                [$count, $lines] = $fileQuery->linesOf($bytes);
            } catch (NotText) {
                $count = 0;
                $lines = [];
            }
            $count === 0 || $findings->add(new FoundFile(
                $found->path,
                $found->entry,
                $count,
                $lines,
                SensitiveContent::isOne($bytes, $found->path->name()),
            ));
            ($this->hear)($findings);
        }));
    }

    /** @param  list<TransferFailed>  $failures */
    private function note(FileMatches $findings, array $failures): void
    {
        foreach ($failures as $failed) {
            $findings->unread[] = [$failed->job->path->toString(), $failed->failure->reason->sentence()];
        }
    }
}
