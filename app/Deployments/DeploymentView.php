<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Account;
use App\Models\Closing;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\OpenAddress;
use App\Models\OpenAddressKind;
use App\Models\ProofBy;
use App\Models\SetAside;
use App\Models\Site;
use App\Plans\DurationForecast;
use App\Plans\PlanTotals;
use App\Plans\PlanTree;
use App\Plans\RoomDrawing;
use App\Plans\ServerChangesView;
use App\Plans\WaysView;
use App\Runs\LaterProof;
use App\Runs\ProofWords;
use App\Runs\RunProgress;
use App\Runs\VisitorsView;
use App\Text\Amount;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\PlanFilter;
use Cellarium\Core\Plan\PlanReader;
use Cellarium\Core\Plan\Room;
use Illuminate\Support\Collection;

/** The page of a deployment with a plan: what changes, how far it has come, what it rests on. */
final readonly class DeploymentView
{
    public Site $site;

    public Account $account;

    /** @var list<array{name: string, state: DeploymentStepState, note: string}> */
    public array $stations;

    public PlanTotals $totals;

    public PlanTree $tree;

    public RunPlace $place;

    public WaysView $ways;

    private DurationForecast $forecast;

    /** Files that are sent, and files that are touched. */
    public int $sends;

    public int $touches;

    /** @param  Collection<int, SetAside>  $aside  what it set aside and is held still */
    public function __construct(
        public Deployment $deployment,
        private PlanReader $plan,
        public Collection $aside,
        PlanFilter $filter,
    ) {
        $this->site = $deployment->site;
        $this->account = $deployment->site->account;
        $this->totals = new PlanTotals($deployment->counts);
        $this->stations = DeploymentSteps::forDeployment($deployment, $this->totals);
        $this->sends = $this->totals->files(Change::Add, Change::Replace);
        $this->touches = $this->sends + $this->totals->files(Change::SetAside);
        $this->place = $deployment->runPlace();
        $this->forecast = DurationForecast::for($deployment);
        $this->ways = new WaysView(
            $deployment,
            $this->forecast,
            $this->totals,
            $plan->contents->unreadFiles,
            $plan->contents->unreadBytes,
        );
        $this->tree = new PlanTree(
            $plan,
            $this->site,
            $this->place,
            $filter,
            $deployment->kind === DeploymentKind::Undo,
        );
    }

    public function isGoing(): bool
    {
        return $this->deployment->state->isGoing();
    }

    public function isPlanned(): bool
    {
        return $this->deployment->state === DeploymentState::Planned;
    }

    public function isProven(): bool
    {
        return $this->deployment->state === DeploymentState::Proven;
    }

    public function isDone(): bool
    {
        return ! $this->isGoing() && ! $this->isPlanned();
    }

    /** Above what differs: a run that was refused or put back has changed nothing. */
    public function heading(): string
    {
        return match (true) {
            $this->isProven() => 'What changed',
            $this->isDone() => 'What would have changed',
            $this->deployment->state === DeploymentState::Unfinished => 'What was begun',
            default => 'What will change',
        };
    }

    public function canBeTriedAgain(): bool
    {
        return $this->deployment->state === DeploymentState::Unfinished;
    }

    public function canBeUndone(): bool
    {
        return $this->isProven() && $this->touches > 0;
    }

    /** Whether it did something that a client is told of. */
    public function canHaveASheet(): bool
    {
        return ($this->isProven() || $this->deployment->state->isBroken()) && ! $this->isGoing();
    }

    /** For how long visitors found no site meanwhile. */
    public function outage(): string
    {
        return $this->deployment->outage()?->sentence()
            ?? ($this->readsBack() ? 'visitors were not asked' : 'not measured');
    }

    /** Nothing visitors see has changed yet. */
    public function canBeCancelled(): bool
    {
        return $this->deployment->cancelled_at === null
            && ($this->deployment->stage?->isUntouched() !== false || $this->deployment->decide_until !== null);
    }

    /** Whether a run waits for a person since its proof has failed, and not since files could not be sent. */
    public function isUnproven(): bool
    {
        return $this->deployment->stage === RunStage::Proving && $this->deployment->decide_until !== null;
    }

    public function isPaused(): bool
    {
        return $this->deployment->paused_at !== null;
    }

    /** Whether it can be paused and go on: while nothing visitors see has changed. */
    public function canBePaused(): bool
    {
        return ! $this->isPaused()
            && $this->canBeCancelled()
            && $this->deployment->stage?->canStand() === true;
    }

    /** For the title of the window, which tells while another page is looked at. */
    public function title(): string
    {
        $name = "{$this->deployment->title()} to {$this->site->domain}";
        $percent = $this->isGoing() ? $this->progress()?->percent() : null;

        return match (true) {
            $this->deployment->decide_until !== null => "Waits for you: $name",
            $this->isPaused() => "Paused: $name",
            $percent !== null => "$percent %, {$this->now()}: $name",
            $this->isGoing() => ucfirst($this->now()).": $name",
            $this->isPlanned() => $name,
            default => ucfirst($this->deployment->label()).": $name",
        };
    }

    /** What was or is to be answered. */
    public function questions(): int
    {
        return $this->plan->contents->directories['']->questions;
    }

    /** @return array<string, string> what can be said of all of them, by its value, in words */
    public function answersToAll(): array
    {
        $goesBack = $this->deployment->kind === DeploymentKind::Undo;

        return [
            Choice::Theirs->value => 'Leave the one there',
            Choice::Ours->value => $goesBack ? 'Go back' : 'Put the new one',
            Choice::Both->value => 'Both',
        ] + ($goesBack ? [] : [Choice::Newer->value => 'The later of the two']);
    }

    public function openQuestions(): int
    {
        return $this->totals->files(Change::Asked);
    }

    /** @return array<string, string> ways to look at the tree: its value, and words with how many files there are */
    public function filters(): array
    {
        $filters = $this->questions() === 0 ? [] : ['questions' => 'Questions '.number_format($this->questions())];
        foreach ($this->totals->present() as $change) {
            $change === Change::Asked || $filters[$change->value] = ucfirst($change->label()).' '
                .number_format($this->totals->files($change));
        }

        return $filters + ['' => 'All'];
    }

    /** What the tree shows now, as filters() calls it. */
    public function shown(): string
    {
        return $this->tree->filter->questions ? 'questions' : $this->tree->filter->change->value ?? '';
    }

    public function serverChanges(): ?ServerChangesView
    {
        return $this->isPlanned() ? ServerChangesView::fromStored($this->deployment->changes_since) : null;
    }

    /** @return list<array{string, string}> in the package and on the server, of names that differ in case only */
    public function clashes(): array
    {
        return $this->isDone() ? [] : array_slice($this->plan->contents->clashes, 0, 5);
    }

    /** What is being done, in words. */
    public function now(): string
    {
        return match ($this->deployment->state) {
            DeploymentState::Waiting => 'waiting',
            DeploymentState::Queued => 'about to start',
            default => str_replace('_', ' ', $this->deployment->stage->value ?? 'starting'),
        };
    }

    /** The run that this one waits for; null where it waits for none. */
    public function waitsFor(): ?Deployment
    {
        return $this->deployment->state === DeploymentState::Waiting ? $this->deployment->waitsFor : null;
    }

    public function isWaiting(): bool
    {
        return $this->deployment->state === DeploymentState::Waiting;
    }

    /** How far the run has come; null before it says so. */
    public function progress(): ?RunProgress
    {
        $progress = $this->deployment->progress;
        $stage = $this->deployment->stage;

        return ! isset($progress['files']) ? null : new RunProgress(
            $this->deployment,
            $stage === null
                ? null
                : $this->forecast->of($stage, (int) $progress['files'], (int) $progress['bytes'])?->seconds,
        );
    }

    public function room(): RoomDrawing
    {
        return new RoomDrawing(Room::fromCost(
            $this->ways->chosen(),
            $this->deployment->counts,
            (int) $this->account->space_used,
            $this->account->space_limit,
        ));
    }

    /** @return array<string, string> connections that can be chosen, "" for as many as help */
    public function connectionChoices(): array
    {
        $most = (int) config('cellarium.host_connections');
        $help = $this->deployment->connections === null ? " ({$this->forecast->connections})" : '';
        $numbers = array_map(strval(...), range(1, max(1, $most)));

        return ['' => "as many as help$help"] + array_combine($numbers, $numbers);
    }

    /** @return array<array-key, string> ways to prove it that can be chosen, "" for every address */
    public function proofChoices(): array
    {
        $samples = array_map(static fn (int $most): string => "a sample of $most, pages first", WaysView::SAMPLES);

        return ['' => 'every address that changes']
            + array_combine(WaysView::SAMPLES, $samples)
            + [ProofBy::ReadingBack->value => 'read back only'];
    }

    /** The choice that is made. */
    public function proof(): string
    {
        return $this->readsBack() ? ProofBy::ReadingBack->value : (string) $this->deployment->proof_most;
    }

    public function readsBack(): bool
    {
        return $this->deployment->provenBy() === ProofBy::ReadingBack;
    }

    public function whyReadBack(): string
    {
        return ($this->deployment->proof_by === null
            ? "{$this->site->domain} is not known to be answered at {$this->account->host} yet: "
            : 'Visitors are not asked: ')
            .'what is put there is read back from the server to the last byte. Once the host answers for the name, it '
            .'is proven by what visitors get.';
    }

    /** Whether visitors were never asked for it, and can be. */
    public function canBeProvenLater(): bool
    {
        return LaterProof::isDue($this->deployment);
    }

    public function signsInAs(): string
    {
        return $this->deployment->ftpUser->login ?? $this->account->login;
    }

    /** What becomes of the FTP user it signs in as; null where it is the account's own login. */
    public function userCloses(): ?string
    {
        $user = $this->deployment->ftpUser;

        return match (true) {
            $user === null => null,
            $user->hasEnded() => 'closed '.$user->closed_at?->shown('H:i:s').', sign-in refused',
            $user->ends === Closing::WithJob => 'closed when this is done',
            default => "closes {$user->endsWords()}",
        };
    }

    public function wayBack(): string
    {
        return $this->deployment->backup === null
            ? 'one step, from the backup taken first'
            : "one step, from backup number {$this->deployment->backup_id}";
    }

    /** What a backup will hold, before it is taken. */
    public function backupFirst(): string
    {
        $held = $this->plan->contents->directories['']->live;

        return $held === 0
            ? 'There is nothing yet, which is noted.'
            : Amount::files($held)." of {$this->place->root}. What is not in the store yet is fetched, read back and "
                .'compared before anything is replaced.';
    }

    /** What its state says besides; null where there is nothing to say. */
    public function but(): ?string
    {
        return $this->isProven() ? $this->deployment->foundLive()?->but() : null;
    }

    /** @return Collection<int, OpenAddress> setup pages that it brought and that answer everybody still */
    public function setups(): Collection
    {
        return $this->isProven()
            ? OpenAddress::where(['deployment_id' => $this->deployment->id, 'kind' => OpenAddressKind::Setup])->get()
            : new Collection;
    }

    public function visitors(): ?VisitorsView
    {
        return VisitorsView::forDeployment($this->deployment);
    }

    /** From where the proofs were fetched. */
    public function fetchedFrom(): string
    {
        $asked = array_values(array_filter(array_column($this->deployment->proofs ?? [], 'at')))[0] ?? null;

        return $asked === null
            ? 'fetched through the domain, past caches'
            : "fetched from the host's own address $asked; the domain does not lead there yet";
    }

    /** @return list<array{path: string, ok: bool, words: string}> */
    public function proofs(): array
    {
        return array_map(static fn (array $proof): array => [
            'path' => (string) parse_url($proof['url'], PHP_URL_PATH),
            'ok' => $proof['matches'] !== false && ($proof['fits'] ?? true) && self::answered($proof),
            'words' => $proof['status'].ProofWords::forProof($proof),
        ], $this->deployment->proofs ?? []);
    }

    /** @param  array<string, mixed>  $proof  as PageProof::toArray() gives it */
    private static function answered(array $proof): bool
    {
        return ($proof['gone'] ?? false) === true ? $proof['error'] === null : $proof['status'] === 200;
    }
}
