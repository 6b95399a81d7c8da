<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Backup\VerifiedBackup;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\RenameOrder;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\ListDirectory;
use Cellarium\Core\Transfer\Job\MakeDirectory;
use Cellarium\Core\Transfer\Job\RemoveDirectory;
use Cellarium\Core\Transfer\Job\RenameFile;
use Cellarium\Core\Transfer\Job\SendContent;
use Cellarium\Core\Transfer\Job\SetMode;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/**
 * First everything is sent under temporary names beside its place, which no visitor sees; then names are given, as
 * RenameOrder has it; then what is set aside goes.
 */
final readonly class FileByFile implements WayToReplace
{
    /** So many files in one directory are compared by listing it. */
    private const LISTED_FROM = 4;

    /** @param  bool  $notesAreLost  whether the journal may lack notes, see PuttingBack */
    public function __construct(
        private TransferPool $pool,
        private ContentStore $store,
        private Surveyor $surveyor,
        private Journal $journal,
        private RunListener $listener,
        private RunOrder $order,
        private bool $notesAreLost = false,
    ) {
    }

    public function carryOut(Plan $plan, VerifiedBackup $before): array
    {
        $present = $this->surveyor->survey($this->order->root)->temporaryOf($this->order->id);
        $waves = RenameOrder::forPlan(
            $plan,
            $this->order->startPages,
            SiteReferences::fromPlan($plan, $this->store, $this->order->public)?->loads,
        );
        $places = $this->places($waves);
        $this->makeDirectories($plan);
        $this->send($places, $this->present($present));
        $this->listener->stage(RunStage::Replacing, count($places), 0);
        $this->journal->note(JournalMark::Renaming);
        $refused = [];
        foreach ($waves as $wave) {
            $refused = [...$refused, ...$this->rename($wave, $places)];
        }
        $this->setAside($plan);
        // Last: a directory may be closed to the login by it.
        $refused = [...$refused, ...$this->setModes($plan)];
        $this->pool->run(
            array_map(static fn (RemotePath $path): Job => new DiscardFile($path), $this->unused($present, $places)),
        );
        $this->journal->note(JournalMark::Replaced);

        return $refused;
    }

    public function putBack(Plan $plan, VerifiedBackup $before): array
    {
        $back = new PuttingBack($this->pool, $this->surveyor, $this->journal, $this->listener, $this->notesAreLost);

        return $back->carryOut($this->order, $plan, $before->manifest);
    }

    public function tidy(Plan $plan, VerifiedBackup $before): void
    {
        // Nothing of it lies anywhere by then.
    }

    /**
     * @param  list<list<PlanItem>>  $waves
     * @return array<string, array{PlanItem, RemotePath}> item and temporary place, by path
     */
    private function places(array $waves): array
    {
        $places = [];
        $index = 0;
        foreach ($waves as $wave) {
            foreach ($wave as $item) {
                $name = $item->path->renamed(TemporaryName::forRun($this->order->id, $index++));
                $places[$item->path->toString()] = [$item, $this->order->root->join($name)];
            }
        }

        return $places;
    }

    private function makeDirectories(Plan $plan): void
    {
        $made = $this->journal->noted(JournalMark::DirectoryMade);
        foreach ($plan->directoriesToMake() as $item) {
            // One after the other: an inner one needs its outer one.
            if (! isset($made[$item->path->toString()])) {
                $this->pool->run([new MakeDirectory($this->order->root->join($item->path), $item->path->toString())]);
                $this->journal->note(JournalMark::DirectoryMade, $item->path->toString());
            }
        }
    }

    /**
     * @param  array<string, array{PlanItem, RemotePath}>  $places
     * @param  array<string, true>  $present
     */
    private function send(array $places, array $present): void
    {
        $renamed = $this->journal->noted(JournalMark::Renamed);
        $sent = $this->journal->noted(JournalMark::Sent);
        $open = array_filter(
            $places,
            static fn (array $place, string $path): bool => ! isset($renamed[$path])
                && ! (isset($sent[$path]) && isset($present[$place[1]->toString()])),
            ARRAY_FILTER_USE_BOTH,
        );
        $listed = $this->toList($places, $open, $renamed);
        (new FileSender($this->pool, $this->journal, $this->listener))->all(
            array_map(static fn (array $place): int => $place[0]->bytes(), $open),
            fn (string $path): Job => $this->sending(
                $open[$path][0],
                $open[$path][1],
                isset($listed[$open[$path][1]->parent()->toString()]),
            ),
        );
        $this->confirm($listed);
    }

    private function sending(PlanItem $item, RemotePath $temporary, bool $isListedLater): Job
    {
        return new SendContent(
            (string) $item->target?->sha256,
            $temporary,
            $item->bytes(),
            $item->path->toString(),
            $isListedLater,
        );
    }

    /**
     * Directories whose listing tells the sizes of what was sent: one listing costs as much as asking for a few files.
     * What was sent before a run was broken off is looked at in any case.
     *
     * @param  array<string, array{PlanItem, RemotePath}>  $places
     * @param  array<string, array{PlanItem, RemotePath}>  $open  of these, what is sent now
     * @param  array<string, true>  $renamed  paths that have their name already
     * @return array<string, list<array{PlanItem, RemotePath}>> by directory
     */
    private function toList(array $places, array $open, array $renamed): array
    {
        $directories = [];
        $known = [];
        foreach (array_diff_key($places, $renamed) as $path => $place) {
            $directory = $place[1]->parent()->toString();
            $directories[$directory][] = $place;
            isset($open[$path]) || $known[$directory] = true;
        }

        return array_filter(
            $directories,
            static fn (array $files, string $directory): bool => count($files) >= self::LISTED_FROM
                || isset($known[$directory]),
            ARRAY_FILTER_USE_BOTH,
        );
    }

    /**
     * What a directory does not list as it was sent is sent once more, and asked for by itself.
     *
     * @param  array<string, list<array{PlanItem, RemotePath}>>  $directories
     *
     * @throws TransferFailed
     */
    private function confirm(array $directories): void
    {
        $again = [];
        $jobs = array_map(
            static fn (string $directory): Job => new ListDirectory(RemotePath::fromString($directory)),
            array_map(strval(...), array_keys($directories)),
        );
        $this->pool->run($jobs, function (Job $job, JobResult $result) use ($directories, &$again): void {
            $sizes = array_column($result->entries, 'size', 'name');
            foreach ($directories[$job->path->toString()] as [$item, $temporary]) {
                if (($sizes[$temporary->name()] ?? null) !== $item->bytes()) {
                    $again[] = $this->sending($item, $temporary, false);
                }
            }
        });
        $this->pool->run($again);
    }

    /**
     * @param  list<PlanItem>  $wave
     * @param  array<string, array{PlanItem, RemotePath}>  $places
     * @return list<string> paths whose mode the server refused to set
     */
    private function rename(array $wave, array $places): array
    {
        $renamed = $this->journal->noted(JournalMark::Renamed);
        $jobs = [];
        foreach ($wave as $item) {
            $path = $item->path->toString();
            if (! isset($renamed[$path])) {
                $jobs[] = new RenameFile(
                    $places[$path][1],
                    $this->order->root->join($item->path),
                    $item->mode ?? $item->live?->mode,
                    $path,
                );
            }
        }
        $refused = [];
        $this->pool->run($jobs, function (Job $job, JobResult $result) use (&$refused): void {
            $this->journal->note(JournalMark::Renamed, $job->subject);
            $this->listener->moved($job->subject, 0);
            $result->modeRefused && $refused[] = $job->subject;
        });

        return $refused;
    }

    /**
     * Of directories, and of files that stay; what is sent gets its mode before its name.
     *
     * @return list<string> paths whose mode the server refused to set
     */
    private function setModes(Plan $plan): array
    {
        $jobs = [];
        foreach ($plan->modesToSet() as $item) {
            if (! $item->isFile() || ! $item->change->touches()) {
                $jobs[] = new SetMode(
                    $this->order->root->join($item->path),
                    (int) $item->mode,
                    $item->path->toString(),
                );
            }
        }
        $refused = [];
        $this->pool->run($jobs, static function (Job $job, JobResult $result) use (&$refused): void {
            $result->modeRefused && $refused[] = $job->subject;
        });

        return $refused;
    }

    private function setAside(Plan $plan): void
    {
        $gone = $this->journal->noted(JournalMark::SetAside);
        $jobs = [];
        foreach ($plan->files(Change::SetAside) as $item) {
            if (! isset($gone[$item->path->toString()])) {
                $jobs[] = new DiscardFile($this->order->root->join($item->path), $item->path->toString());
            }
        }
        // Whoever has a page of before still asks for what it names.
        $jobs === [] || usleep((int) (1e6 * $this->order->lingerSeconds));
        $this->pool->run($jobs, fn (Job $job) => $this->journal->note(JournalMark::SetAside, $job->subject));
        foreach ($plan->directoriesToRemove() as $item) {
            if (! isset($gone[$item->path->toString()])) {
                $this->pool->run([
                    new RemoveDirectory($this->order->root->join($item->path), $item->path->toString()),
                ]);
                $this->journal->note(JournalMark::SetAside, $item->path->toString());
            }
        }
    }

    /**
     * @param  list<RemotePath>  $temporary
     * @return array<string, true>
     */
    private function present(array $temporary): array
    {
        return array_fill_keys(array_map(static fn (RemotePath $path): string => $path->toString(), $temporary), true);
    }

    /**
     * Temporary files of runs that were given up.
     *
     * @param  list<RemotePath>  $present
     * @param  array<string, array{PlanItem, RemotePath}>  $places
     * @return list<RemotePath>
     */
    private function unused(array $present, array $places): array
    {
        $ours = [];
        foreach ($places as [$item, $temporary]) {
            $ours[$temporary->toString()] = true;
        }

        return array_values(
            array_filter($present, static fn (RemotePath $path): bool => ! isset($ours[$path->toString()])),
        );
    }
}
