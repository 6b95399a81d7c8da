<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Job\CopyFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\MakeDirectory;
use Cellarium\Core\Transfer\Job\SendContent;
use Cellarium\Core\Transfer\TransferPool;

/** Sends what is new, and has the server copy what it holds already, where it can. */
final readonly class LayBySending implements LaysTree
{
    public function __construct(
        private TransferPool $pool,
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

    public function lay(StagedTree $tree, RemotePath $root, RemotePath $laid): void
    {
        $this->makeDirectories($tree, $laid);
        $sent = $this->journal->noted(JournalMark::Sent);
        $bytes = [];
        foreach ($tree->files as $path => $file) {
            isset($sent[$path]) || $bytes[$path] = $file->entry->size;
        }
        (new FileSender($this->pool, $this->journal, $this->listener))->all(
            $bytes,
            fn (string $path): Job => $this->job($tree->files[$path], $root, $laid),
        );
    }

    /** One level after the other: an inner one needs its outer one. */
    private function makeDirectories(StagedTree $tree, RemotePath $laid): void
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
                isset($made[$path]) || $jobs[] = new MakeDirectory(SwapPaths::within($laid, $path), $path);
            }
            $this->pool->run($jobs, fn (Job $job) => $this->journal->note(JournalMark::DirectoryMade, $job->subject));
        }
    }

    private function job(LaidFile $file, RemotePath $root, RemotePath $laid): Job
    {
        $entry = $file->entry;
        $content = (string) $entry->sha256;

        $send = new SendContent($content, $laid->join($entry->path), $entry->size, $entry->path->toString(), true);

        return $file->isThere ? new CopyFile($root->join($entry->path), $send) : $send;
    }
}
