<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\Job;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/** Sends what is new, and has the server copy what it holds already, where it can. */
final readonly class LayBySending implements LaysTree
{
    /** In bytes. */
    private const LARGE = 1_000_000;

    public function __construct(
        private TransferPool $pool,
        private ContentStore $store,
        private Journal $journal,
        private RunListener $listener,
    ) {
    }

    public function barred(): ?string
    {
        return null;
    }

    public function settle(): void
    {
        // Connections end with the run that has them.
    }

    public function lay(TreeBeside $tree, RemotePath $root, RemotePath $laid): void
    {
        $this->makeDirectories($tree, $laid);
        $sent = $this->journal->noted(JournalMark::Sent);
        $open = array_filter(
            $tree->files,
            static fn (LaidFile $file): bool => ! isset($sent[$file->entry->path->toString()]),
        );
        $this->listener->stage(
            RunStage::Sending,
            count($open),
            array_sum(array_map(static fn (LaidFile $file): int => $file->entry->size, $open)),
        );
        // Large ones first: else the last of them goes over one connection while the others have nothing to do.
        uasort($open, static fn (LaidFile $one, LaidFile $other): int => self::weight($other) <=> self::weight($one));
        $jobs = (function () use ($open, $root, $laid): \Generator {
            foreach ($open as $file) {
                yield $this->job($file, $root, $laid);
            }
        })();
        do {
            $failed = $this->pool->runAll($jobs, function (Job $job): void {
                $this->journal->note(JournalMark::Sent, $job->subject);
                $this->listener->moved($job->subject, $job->size);
            });
            $jobs = array_map(static fn (TransferFailed $one): Job => $one->job, $failed);
        } while ($failed !== [] && $this->listener->failed($failed));
        if ($failed !== []) {
            throw $failed[0];
        }
    }

    /** One level after the other: an inner one needs its outer one. */
    private function makeDirectories(TreeBeside $tree, RemotePath $laid): void
    {
        $levels = [];
        foreach (array_keys($tree->directories) as $path) {
            $levels[substr_count((string) $path, '/')][] = (string) $path;
        }
        ksort($levels);
        $made = $this->journal->noted(JournalMark::DirectoryMade);
        foreach ($levels as $paths) {
            $jobs = [];
            foreach ($paths as $path) {
                isset($made[$path]) || $jobs[] = Job::makeDirectory(Beside::within($laid, $path), $path);
            }
            $this->pool->run($jobs, fn (Job $job) => $this->journal->note(JournalMark::DirectoryMade, $job->subject));
        }
    }

    private function job(LaidFile $file, RemotePath $root, RemotePath $laid): Job
    {
        $entry = $file->entry;
        $local = $this->store->file((string) $entry->sha256);

        return $file->isThere
            ? Job::copy(
                $root->join($entry->path),
                $laid->join($entry->path),
                $local,
                $entry->size,
                $entry->path->toString(),
                true,
            )
            : Job::send(
                $local,
                $laid->join($entry->path),
                $entry->size,
                $entry->path->toString(),
                true,
            );
    }

    /** Small ones are all alike, and stay in their order. */
    private static function weight(LaidFile $file): int
    {
        return $file->entry->size < self::LARGE ? 0 : $file->entry->size;
    }
}
