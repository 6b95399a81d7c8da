<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Backup\VerifiedBackup;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\ListDirectory;
use Cellarium\Core\Transfer\Job\MakeDirectory;
use Cellarium\Core\Transfer\Job\SetMode;
use Cellarium\Core\Transfer\TransferPool;

/**
 * Lays a whole tree beside the document root, then lets two names change; the old tree stays until the new one is
 * proven, so the way back is two names as well.
 *
 * Where a run stands is read from what lies there and not from notes: the root alone, the root with a laid tree, the
 * root with an old tree, or, for as long as a server takes over two renamings, neither name. Giving the names
 * again does no harm in any of them: a server never renames over a directory that holds something.
 */
final readonly class SwapDirectory implements WayToReplace
{
    private SwapPaths $beside;

    public function __construct(
        private TransferPool $pool,
        private SwapTrees $trees,
        private LaysTree $laying,
        private GivesNames $names,
        private Journal $journal,
        private RunListener $listener,
        private RunOrder $order,
        private OtherRuns $others,
    ) {
        $this->beside = new SwapPaths($order->root, $order->id);
    }

    public function carryOut(Plan $plan, VerifiedBackup $before): array
    {
        if ($this->journal->has(JournalMark::Replaced)) {
            return [];
        }
        $tree = StagedTree::fromPlan($plan);
        $refused = [];
        if (! $this->journal->has(JournalMark::Renaming)) {
            try {
                $this->bar($tree, $plan);
                $root = $this->rehearse();
            } catch (RunRefused $refused) {
                // It may have been another way to the same end before this run was broken off.
                $this->look()['laid'] === null || $this->trees->remove($this->beside->laid);
                throw $refused;
            }
            $refused = $this->lay($tree, $root);
        }
        $this->listener->stage(RunStage::Replacing, 2 + count($tree->moves), 0);
        $this->journal->note(JournalMark::Renaming);
        $said = $this->give([...$this->moves($tree, $this->beside->root, $this->beside->laid), ...$this->forward()]);
        $now = $this->look();
        if ($now['root'] === null || $now['old'] === null || $now['laid'] !== null) {
            throw ProofFailed::names(implode(' ', array_unique(array_filter($said))));
        }
        $this->listener->moved('', 0);
        $this->trees->carryOver($this->beside->old, $this->beside->root, $before->manifest, $tree, $plan);
        $this->trees->letGoOfLingering($tree, $plan, $this->beside->root, $this->order->lingerSeconds);
        $refused = [...$refused, ...$this->trees->setDirectoryModes($tree, $this->beside->root)];
        $this->journal->note(JournalMark::Replaced);

        return $refused;
    }

    public function putBack(Plan $plan, VerifiedBackup $before): array
    {
        $this->laying->settle();
        $tree = StagedTree::fromPlan($plan);
        $now = $this->look();
        $resent = [];
        if ($now['root'] === null && $now['old'] !== null) {
            $this->give($this->backward(false));
        } elseif ($now['root'] !== null && $now['old'] !== null) {
            // Letting go of it may have begun.
            $resent = $this->trees->complete($this->beside->old, $before->manifest, $tree);
            $this->give([
                ...$this->moves($tree, $this->beside->root, $this->beside->old),
                ...$this->backward(true),
            ]);
        }
        $now = $this->look();
        if ($now['laid'] !== null && $now['root'] !== null) {
            // All but the first of the names may have been given.
            $this->give($this->moves($tree, $this->beside->laid, $this->beside->root));
            $this->trees->carryOver($this->beside->laid, $this->beside->root, $before->manifest, $tree);
            $this->trees->remove($this->beside->laid);
        }
        $this->pool->run([new DiscardFile($this->beside->archive)]);

        return $this->trees->notAsBefore($this->beside->root, $before->manifest, $resent);
    }

    public function tidy(Plan $plan, VerifiedBackup $before): void
    {
        $entries = $this->parent();
        if ($this->beside->among($entries)['old'] !== null) {
            $this->trees->carryOver(
                $this->beside->old,
                $this->beside->root,
                $before->manifest,
                StagedTree::fromPlan($plan),
                $plan,
            );
            $this->trees->remove($this->beside->old);
        }
        foreach ($this->beside->leftBy($entries) as [$run, $what, $directory]) {
            // An old tree of a run that is not proven may be all there is.
            $end = $run === $this->order->id ? null : $this->others->end($run);
            $isOver = ($what === 'old' && $end === RunEnd::Proven) || ($what === 'laid' && $end === RunEnd::PutBack);
            $isOver && $this->trees->remove($directory);
        }
    }

    /** A directory that holds nothing could be renamed over, and what it stood for would be lost. */
    private function bar(StagedTree $tree, Plan $plan): void
    {
        $barred = $this->laying->barred();
        if ($barred !== null) {
            throw RunRefused::wayBarred($barred);
        }
        if (! $tree->leavesSomething($plan)) {
            throw RunRefused::wayBarred('everything there is kept, so nothing is to be swapped');
        }
        if ($tree->files === []) {
            throw RunRefused::wayBarred('nothing would be there');
        }
    }

    /**
     * Has the root change its name and back, in one piece, before anything is laid: where something holds the
     * directory, or the login may not, the server says so now.
     *
     * @return RemoteEntry the root
     */
    private function rehearse(): RemoteEntry
    {
        $now = $this->look();
        if ($now['root'] === null && $now['old'] !== null) {
            $this->give($this->backward(false));
            $now = $this->look();
        }
        if ($now['root']?->kind !== EntryKind::Directory) {
            throw RunRefused::wayBarred(
                $now['root'] === null
                    ? "{$this->beside->parent} does not list it"
                    : 'it is a link to another place, or no directory',
            );
        }
        if ($now['laid'] === null) {
            $root = $this->beside->root->toString();
            $said = $this->give([[$this->beside->root, $this->beside->old], ...$this->backward(false)]);
            if ($said[0] !== '' || $said[1] !== '') {
                $this->look()['root'] ?? $this->give($this->backward(false));
                $why = $said[0] === '' ? $said[1] : $said[0];
                throw RunRefused::wayBarred("the server does not rename $root: $why");
            }
        }

        return $now['root'];
    }

    /** @return list<string> paths whose mode the server refused to set */
    private function lay(StagedTree $tree, RemoteEntry $root): array
    {
        $this->pool->run([new MakeDirectory($this->beside->laid, '')]);
        $this->laying->lay($tree, $this->beside->root, $this->beside->laid);
        $refused = $this->trees->confirm($tree, $this->beside->laid);
        $laid = $this->look()['laid'];
        if ($root->mode !== null && $laid?->mode !== $root->mode) {
            $this->pool->run([new SetMode($this->beside->laid, $root->mode, '')]);
        }

        return $refused;
    }

    /** @return array{root: RemoteEntry|null, laid: RemoteEntry|null, old: RemoteEntry|null} */
    private function look(): array
    {
        return $this->beside->among($this->parent());
    }

    /** @return list<RemoteEntry> */
    private function parent(): array
    {
        $entries = [];
        $this->pool->run(
            [new ListDirectory($this->beside->parent)],
            static function (Job $job, JobResult $result) use (&$entries): void {
                $entries = $result->entries;
            },
        );

        return $entries;
    }

    /** @return list<array{RemotePath, RemotePath}> */
    private function moves(StagedTree $tree, RemotePath $from, RemotePath $to): array
    {
        return array_map(static fn ($path): array => [$from->join($path), $to->join($path)], $tree->moves);
    }

    /** @return list<array{RemotePath, RemotePath}> */
    private function forward(): array
    {
        return [[$this->beside->root, $this->beside->old], [$this->beside->laid, $this->beside->root]];
    }

    /** @return non-empty-list<array{RemotePath, RemotePath}> */
    private function backward(bool $isThere): array
    {
        $back = [$this->beside->old, $this->beside->root];

        return $isThere ? [[$this->beside->root, $this->beside->laid], $back] : [$back];
    }

    /**
     * @param  list<array{RemotePath, RemotePath}>  $renames
     * @return list<string> what was said against each, "" where it is done
     */
    private function give(array $renames): array
    {
        return $renames === [] ? [] : $this->names->give($renames);
    }
}
