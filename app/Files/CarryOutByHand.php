<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\FileAction;
use App\Models\FileDraft;
use App\Models\FileVersion;
use App\Models\RecordKind;
use App\Models\SetAside;
use App\Record\Record;
use App\Sites\LiveHeadline;
use App\Storage\RunIds;
use App\Storage\SiteLockNames;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileChangeKind;
use Cellarium\Core\File\FileChangeRefused;
use Cellarium\Core\File\FileOutcome;
use Cellarium\Core\File\FileStepResult;
use Cellarium\Core\File\FileWork;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Storage\StoreFailure;

/** Carries out a change by hand step by step, each written down before and after; killed anywhere, it is settled. */
final readonly class CarryOutByHand
{
    public function __construct(
        private Connections $connections,
        private ContentStore $store,
        private Locks $locks,
        private Listings $listings,
        private VisitorsAsked $visitors,
    ) {
    }

    /** @return ChangeByHand as it ended */
    public function carryOut(ChangeByHand $change): ChangeByHand
    {
        $lock = $this->locks->acquire(...self::lockNames($change));
        if ($lock === null) {
            return $this->end(
                $change,
                'A deployment, a backup or another change is at work here. Nothing was touched; try again when it '
                    .'has ended.',
            );
        }
        try {
            $isOurs = ChangeByHand::where(['id' => $change->id, 'state' => ChangeState::Waiting])->update([
                'state' => ChangeState::Running,
                'started_at' => now(),
            ]) === 1;

            return $isOurs ? $this->run($change->refresh()) : $change->refresh();
        } finally {
            $lock->release();
        }
    }

    /**
     * What was broken off when its worker ended, or when the server could not be asked how it stands.
     *
     * To be called while nobody else works there.
     */
    public function settle(ChangeByHand $change): ChangeByHand
    {
        $step = $change->steps()[$change->done] ?? null;

        return $step === null
            ? $this->end($change, null)
            : $this->settled($change, $step, 'It was broken off from outside.');
    }

    /** What was never begun, since the worker that was to begin it is gone. */
    public function giveUp(ChangeByHand $change): void
    {
        $isOurs = ChangeByHand::where(['id' => $change->id, 'state' => $change->state])
            ->update(['state' => ChangeState::Running]) === 1;
        $isOurs && $this->end(
            $change->refresh(),
            'The worker that was to do it was ended from outside before it began. Nothing was touched; ask again.',
        );
    }

    /** @return list<string> */
    public static function lockNames(ChangeByHand $change): array
    {
        $change->loadMissing('account.sites', 'site.account');

        return $change->site === null
            ? SiteLockNames::ofAccount($change->account)
            : SiteLockNames::forSite($change->site);
    }

    private function run(ChangeByHand $change): ChangeByHand
    {
        $work = $this->work($change);
        foreach ($change->steps() as $number => $step) {
            if ($number < $change->done) {
                continue;
            }
            // It was broken off here before, and it was not clear how it stood.
            $outcome = $change->isTouching() ? $this->outcome($change, $step) : FileOutcome::NotDone;
            if ($outcome === FileOutcome::Done) {
                continue;
            }
            if ($outcome === FileOutcome::Unclear) {
                return $this->unclear($change, (string) $change->trouble);
            }
            $change->update(['held' => null]);
            try {
                $this->done($change, $step, $work->carryOut(
                    $step,
                    static function (?ManifestEntry $before) use ($change, $number): void {
                        $change->update(['held' => ['step' => $number, 'before' => $before?->toArray()]]);
                    },
                ));
            } catch (FileChangeRefused $refused) {
                return $this->end($change, $refused->getMessage());
            } catch (RemoteFailure|StoreFailure $failure) {
                $ended = $this->settled($change, $step, Problem::words($failure));
                if ($ended->state !== ChangeState::Running) {
                    return $ended;
                }
            }
        }

        return $this->end($change, null);
    }

    /** Finds out how the step stands that was broken off; goes on where it turns out to be done. */
    private function settled(ChangeByHand $change, FileChange $step, string $why): ChangeByHand
    {
        if (! $change->isTouching()) {
            return $this->end($change, $why);
        }

        return match ($this->outcome($change, $step)) {
            FileOutcome::Done => $change->done === count($change->steps()) ? $this->end($change, null) : $change,
            FileOutcome::NotDone => $this->end($change, $why),
            FileOutcome::Unclear => $this->unclear(
                $change,
                "$why $step->path is neither seen to be what it was nor what it was to be. Look again once the server "
                    .'answers.',
            ),
        };
    }

    /** How a step stands that was broken off; written down where it is done. Unclear where nobody can be asked. */
    private function outcome(ChangeByHand $change, FileChange $step): FileOutcome
    {
        $before = $change->heldNow();
        try {
            $settled = $this->work($change)->settle($step, $before);
        } catch (RemoteFailure) {
            return FileOutcome::Unclear;
        }
        if ($settled->outcome === FileOutcome::Done) {
            $this->done($change, $step, new FileStepResult($before, $settled->now));
        }

        return $settled->outcome;
    }

    private function work(ChangeByHand $change): FileWork
    {
        return new FileWork($this->connections->remote($change->account), $this->store, RunIds::ofChange($change));
    }

    private function done(ChangeByHand $change, FileChange $step, FileStepResult $result): void
    {
        $path = $step->to ?? $step->path;
        FileVersion::updateOrCreate(['change_id' => $change->id, 'step' => $change->done], [
            'account_id' => $change->account_id,
            'kind' => $step->kind,
            'path' => $path->toString(),
            'path_hash' => FileVersion::hash($path),
            'directory_hash' => FileVersion::hash($path->parent()),
            'sha256' => $result->before?->sha256,
            'bytes' => $result->before->size ?? 0,
            'before' => $result->before?->toArray(),
            'after' => $result->after?->toArray(),
            'mode_refused' => $result->modeRefused,
            'at' => now(),
            'held_until' => now()->addDays((int) config('cellarium.set_aside_days')),
        ]);
        $change->update(['done' => $change->done + 1, 'held' => null]);
        if ($step->kind === FileChangeKind::SetAside) {
            $this->setAside($change, $step, $result->before);
        }
    }

    private function setAside(ChangeByHand $change, FileChange $step, ?ManifestEntry $before): void
    {
        $path = $change->site?->applicationRoot()->toward($step->path);
        if ($path === null || $before?->sha256 === null || $change->action === FileAction::Undo) {
            return;
        }
        SetAside::create([
            'site_id' => $change->site_id,
            'change_id' => $change->id,
            'path' => $path->toString(),
            'sha256' => $before->sha256,
            'bytes' => $before->size,
            'mode' => $before->mode,
            'set_aside_at' => now(),
            'held_until' => now()->addDays((int) config('cellarium.set_aside_days')),
        ]);
    }

    private function unclear(ChangeByHand $change, string $why): ChangeByHand
    {
        return $this->closed($change, ChangeState::Unclear, $why);
    }

    /** @param  string|null  $why  it did not go on; null where it did */
    private function end(ChangeByHand $change, ?string $why): ChangeByHand
    {
        return $this->closed($change, match (true) {
            $why === null => ChangeState::Done,
            $change->done === 0 => ChangeState::Refused,
            default => ChangeState::Partly,
        }, $why);
    }

    private function closed(ChangeByHand $change, ChangeState $state, ?string $why): ChangeByHand
    {
        $change->update(['state' => $state, 'trouble' => $why, 'ended_at' => now()]);
        if ($state === ChangeState::Done && $change->undoes_id !== null) {
            ChangeByHand::whereKey($change->undoes_id)->update(['undone_at' => now()]);
            SetAside::where('change_id', $change->undoes_id)->update(['restored_at' => now()]);
        }
        if ($state === ChangeState::Done) {
            SetAside::whereKey($change->asked['set_aside'] ?? 0)->update(['restored_at' => now()]);
            FileDraft::whereKey($change->asked['draft'] ?? 0)->delete();
        }
        Record::write(
            $state === ChangeState::Done ? RecordKind::FilesChanged : RecordKind::FilesNotChanged,
            ($change->site->domain ?? $change->account->title()).": $change->title, in $change->directory"
                .($why === null ? '' : " ({$state->label()}): $why"),
            $change->site ?? $change->account,
            ['change' => $change->id],
            $change->person,
        );
        foreach ($change->account->sites as $site) {
            LiveHeadline::refresh($site);
        }
        $refused = $change->action === FileAction::SetModes && $state === ChangeState::Done
            ? $this->refused($change)
            : [];
        $this->lookAgain($change);
        $change->action === FileAction::Save && $state === ChangeState::Done && $this->prove($change);
        $refused === [] || $change->update(['proof' => $this->visitors->mended($this->placeOf($change), $refused)]);

        return $change;
    }

    /** What visitors get of it now, and whether that is what was saved. */
    private function prove(ChangeByHand $change): void
    {
        $saved = $change->steps()[0];
        $place = FilePlace::ofAccount($change->account, '')->at($saved->path->parent());
        $proof = $place === null ? null : $this->visitors->of($place, $saved->path, $saved->sha256);
        $proof === null || $change->update(['proof' => $proof]);
    }

    /** @return list<string> names in its directory that visitors were refused when they were asked for last */
    private function refused(ChangeByHand $change): array
    {
        $place = $this->placeOf($change);
        $names = [];
        foreach ($change->steps() as $step) {
            $step->path->parent()->equals($place->at) && $names[] = $step->path->name();
        }

        return $this->visitors->refused($place, $names);
    }

    private function placeOf(ChangeByHand $change): FilePlace
    {
        return FilePlace::ofAccount($change->account, '')->at(RemotePath::fromString($change->directory))
            ?? throw new \LogicException('An account holds each of its directories.');
    }

    /** What is shown of the directories that were touched. */
    private function lookAgain(ChangeByHand $change): void
    {
        $place = FilePlace::ofAccount($change->account->loadMissing('sites'), '');
        $touched = [$change->directory => true];
        foreach (array_slice($change->steps(), 0, $change->done + 1) as $step) {
            $touched[$step->path->parent()->toString()] = true;
            $step->to === null || $touched[$step->to->parent()->toString()] = true;
        }
        foreach (array_slice(array_keys($touched), 0, 3) as $directory) {
            $at = $place->at(RemotePath::fromString($directory));
            // What could not be read is written down with the listing.
            $at === null || rescue(
                fn () => $this->listings->look($at),
                null,
                static fn (\Throwable $failure): bool => ! Problem::isExpected($failure),
            );
        }
    }
}
