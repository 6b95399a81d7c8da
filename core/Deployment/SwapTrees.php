<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\HashFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\MakeDirectory;
use Cellarium\Core\Transfer\Job\RemoveDirectory;
use Cellarium\Core\Transfer\Job\RenameFile;
use Cellarium\Core\Transfer\Job\SendContent;
use Cellarium\Core\Transfer\Job\SetMode;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferPool;

/** Moves the trees of a swap, wherever they lie at the moment. Looks first, and does what is missing. */
final readonly class SwapTrees
{
    public function __construct(
        private TransferPool $pool,
        private Surveyor $surveyor,
    ) {
    }

    /**
     * What the server does not list as it was laid is sent once more, and asked for by itself; then files get their
     * modes.
     *
     * @return list<string> paths whose mode the server refused to set
     */
    public function confirm(StagedTree $tree, RemotePath $laid): array
    {
        $listed = $this->surveyor->survey($laid)->manifest;
        $again = [];
        $modes = [];
        foreach ($tree->files as $file) {
            $path = $file->entry->path;
            $is = $listed->get($path);
            if ($is === null || $is->size !== $file->entry->size) {
                $again[] = $this->sending($file->entry, $laid);
            }
            if ($file->mode !== null && $is?->mode !== $file->mode) {
                $modes[] = new SetMode($laid->join($path), $file->mode, $path->toString());
            }
        }
        $this->pool->run($again);

        return $this->setModes($modes);
    }

    /**
     * Of directories, last of all: one may be closed to the login by it.
     *
     * @return list<string> paths whose mode the server refused to set
     */
    public function setDirectoryModes(StagedTree $tree, RemotePath $root): array
    {
        if (array_filter($tree->directories, is_int(...)) === []) {
            return [];
        }
        $listed = $this->surveyor->survey($root)->manifest;
        $jobs = [];
        foreach (array_reverse($tree->directories, true) as $path => $mode) {
            $is = $listed->get((string) $path);
            if ($mode !== null && $is !== null && $is->mode !== $mode) {
                $jobs[] = new SetMode(SwapPaths::within($root, (string) $path), $mode, (string) $path);
            }
        }

        return $this->setModes($jobs);
    }

    /**
     * Moves what came or changed in a tree while nobody looked to the one that took its place.
     *
     * @param  Manifest  $before  what lay in the old tree
     * @param  Plan|null  $plan  where the tree that is left is the old one; what it replaced must not have changed
     *
     * @throws ProofFailed where somebody changed meanwhile what was replaced
     */
    public function carryOver(
        RemotePath $from,
        RemotePath $to,
        Manifest $before,
        StagedTree $tree,
        ?Plan $plan = null,
    ): void {
        $replaced = [];
        foreach ($plan?->files(Change::Replace, Change::SetAside) ?? [] as $item) {
            $replaced[$item->path->toString()] = true;
        }
        $jobs = [];
        $directories = [];
        foreach ($this->surveyor->survey($from)->manifest->all() as $entry) {
            $path = $entry->path;
            $old = $before->get($path);
            $isKnown = $plan === null
                ? isset($tree->files[$path->toString()]) || $old !== null
                : $old?->looksLike($entry) === true;
            if ($entry->kind === EntryKind::Directory || ($isKnown && ! $tree->moves($path))) {
                continue;
            }
            if (isset($replaced[$path->toString()])) {
                throw ProofFailed::changedMeanwhile($path->toString());
            }
            foreach ($path->ancestors() as $above) {
                $directories[$above->toString()] = true;
            }
            $jobs[] = new RenameFile($from->join($path), $to->join($path), null, $path->toString());
        }
        foreach (array_keys($directories) as $path) {
            $this->pool->run([new MakeDirectory(SwapPaths::within($to, (string) $path), (string) $path)]);
        }
        $this->pool->run($jobs);
    }

    /** What is set aside stays a moment longer, for pages that were open before. */
    public function letGoOfLingering(StagedTree $tree, Plan $plan, RemotePath $root, float $seconds): void
    {
        $jobs = [];
        foreach ($tree->files as $file) {
            $path = $file->entry->path;
            $file->lingers && $jobs[] = new DiscardFile($root->join($path), $path->toString());
        }
        $jobs === [] || usleep((int) (1e6 * $seconds));
        $this->pool->run($jobs);
        foreach ($plan->directoriesToRemove() as $item) {
            if (array_key_exists($item->path->toString(), $tree->directories)) {
                $this->pool->run([new RemoveDirectory($root->join($item->path), $item->path->toString())]);
            }
        }
    }

    /**
     * Makes an old tree whole, of which some may be gone already.
     *
     * @return list<ManifestEntry> files that were sent again
     */
    public function complete(RemotePath $old, Manifest $before, StagedTree $tree): array
    {
        $listed = $this->surveyor->survey($old)->manifest;
        $jobs = [];
        $sent = [];
        $modes = [];
        foreach ($before->all() as $entry) {
            $path = $entry->path->toString();
            if ($tree->moves($entry->path)) {
                continue;
            }
            $is = $listed->get($entry->path);
            if ($entry->kind === EntryKind::Directory && $is === null) {
                $this->pool->run([new MakeDirectory($old->join($entry->path), $path)]);
            } elseif ($entry->isFile() && $is?->size !== $entry->size) {
                $jobs[] = $this->sending($entry, $old);
                $sent[] = $entry;
            } else {
                continue;
            }
            $entry->mode === null || $modes[] = new SetMode($old->join($entry->path), $entry->mode, $path);
        }
        $this->pool->run($jobs);
        $this->setModes(array_reverse($modes));

        return $sent;
    }

    /** With all that is in it. */
    public function remove(RemotePath $directory): void
    {
        $survey = $this->surveyor->survey($directory);
        $files = [];
        $directories = [];
        foreach ($survey->manifest->all() as $entry) {
            $path = $directory->join($entry->path);
            if ($entry->kind === EntryKind::Directory) {
                $directories[$entry->path->depth()][] = new RemoveDirectory($path, $entry->path->toString());
            } else {
                $files[] = new DiscardFile($path, $entry->path->toString());
            }
        }
        foreach ($survey->temporary as $paths) {
            $files = [...$files, ...array_map(static fn (RemotePath $path): Job => new DiscardFile($path), $paths)];
        }
        $this->pool->run($files);
        krsort($directories);
        foreach ($directories as $jobs) {
            $this->pool->run($jobs);
        }
        $this->pool->run([new RemoveDirectory($directory, '')]);
    }

    /**
     * @param  list<ManifestEntry>  $resent  files that are read back
     * @return list<string> paths that are not there as they were
     */
    public function notAsBefore(RemotePath $root, Manifest $before, array $resent): array
    {
        $listed = $this->surveyor->survey($root)->manifest;
        $paths = [];
        foreach ($before->all() as $entry) {
            $is = $listed->get($entry->path);
            if (
                $is === null
                || $is->kind !== $entry->kind
                || ($entry->isFile() && $is->size !== $entry->size)
                || ($entry->mode !== null && $is->mode !== null && $is->mode !== $entry->mode)
            ) {
                $paths[] = $entry->path->toString();
            }
        }
        $due = [];
        $jobs = [];
        foreach ($resent as $entry) {
            $due[$entry->path->toString()] = $entry->sha256;
            $jobs[] = new HashFile($root->join($entry->path), $entry->size, $entry->path->toString());
        }
        $this->pool->run($jobs, static function (Job $job, JobResult $result) use ($due, &$paths): void {
            $result->sha256 === $due[$job->subject] || $paths[] = $job->subject;
        });

        return array_values(array_unique($paths));
    }

    private function sending(ManifestEntry $entry, RemotePath $in): Job
    {
        return new SendContent(
            (string) $entry->sha256,
            $in->join($entry->path),
            $entry->size,
            $entry->path->toString(),
        );
    }

    /**
     * @param  list<Job>  $jobs
     * @return list<string> paths whose mode the server refused to set
     */
    private function setModes(array $jobs): array
    {
        $refused = [];
        $this->pool->run($jobs, static function (Job $job, JobResult $result) use (&$refused): void {
            $result->modeRefused && $refused[] = $job->subject;
        });

        return $refused;
    }
}
