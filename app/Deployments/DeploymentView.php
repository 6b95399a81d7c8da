<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Account;
use App\Models\Closing;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\SetAside;
use App\Models\Site;
use App\Packages\FileTree;
use App\Text\Amount;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanItem;
use Illuminate\Support\Collection;

/** What the page of a deployment with a plan shows: what changes, how far it has come, what it rests on. */
final readonly class DeploymentView
{
    /** Width of the drawing of shares, and the gap between two of them. */
    private const WIDTH = 1000;

    private const GAP = 2;

    private const SHARES = [Change::Add, Change::Replace, Change::SetAside, Change::Keep, Change::Same];

    public Site $site;

    public Account $account;

    /** @var list<array{name: string, state: StationState, note: string}> */
    public array $stations;

    /** @var list<PlanRow> */
    public array $rows;

    public int $hidden;

    public RunPlace $place;

    /** Files that are sent, and files that are touched. */
    public int $sends;

    public int $touches;

    /** @param  Collection<int, SetAside>  $aside  what it set aside and is held still */
    public function __construct(
        public Deployment $deployment,
        private Plan $plan,
        public Collection $aside,
    ) {
        $this->site = $deployment->site;
        $this->account = $deployment->site->account;
        $this->stations = Stations::of($deployment, $plan);
        $counts = $plan->counts();
        $this->sends = $counts[Change::Add->value]['files'] + $counts[Change::Replace->value]['files'];
        $this->touches = $this->sends + $counts[Change::SetAside->value]['files'];
        $this->place = $deployment->runPlace();
        $rows = PlanRows::of($plan, $this->site, $this->place);
        $this->rows = $rows->rows;
        $this->hidden = $rows->hidden;
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

    public function canBeTriedAgain(): bool
    {
        return $this->deployment->state === DeploymentState::Unfinished;
    }

    public function canBeUndone(): bool
    {
        return $this->isProven() && $this->touches > 0;
    }

    /** Nothing visitors see has changed yet. */
    public function canBeCancelled(): bool
    {
        $untouched = [null, RunStage::Surveying, RunStage::BackingUp, RunStage::Sending];

        return $this->deployment->cancelled_at === null && in_array($this->deployment->stage, $untouched, true);
    }

    public function source(): string
    {
        return $this->deployment->kind === DeploymentKind::Deploy ? 'In the package' : 'In the backup';
    }

    /** @return list<array{tone: string, words: string}> how many files of each kind of change, those there are */
    public function totals(): array
    {
        return PlanRows::totals($this->plan);
    }

    /** @return list<array{tone: string, x: float, width: float}> the drawing of shares, of WIDTH units */
    public function shares(): array
    {
        $counts = $this->plan->counts();
        $all = max(1, array_sum(array_column($counts, 'files')));
        $at = 0.0;
        $shares = [];
        foreach (self::SHARES as $change) {
            $width = self::WIDTH * $counts[$change->value]['files'] / $all;
            $shares[] = [
                'tone' => FileTree::tone($change),
                'x' => round($at, 2),
                'width' => round(max(0, $width - self::GAP), 2),
            ];
            $at += $width;
        }

        return $shares;
    }

    /** @return list<array{string, string}> in the package and on the server, of names that differ in case only */
    public function clashes(): array
    {
        return $this->isDone() ? [] : array_slice($this->plan->caseClashes(), 0, 5);
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
        return isset($this->deployment->progress['files']) ? new RunProgress($this->deployment) : null;
    }

    /** Space used before and after, of how much; null where the host does not tell. */
    public function space(): ?string
    {
        if ($this->account->space_limit === null) {
            return null;
        }
        $grows = array_sum(array_map(
            static fn (PlanItem $item): int => $item->bytes() - ($item->live->size ?? 0),
            $this->plan->files(Change::Add, Change::Replace),
        ));
        $after = $this->account->space_used + $grows - $this->plan->counts()[Change::SetAside->value]['bytes'];

        return Amount::bytes($this->account->space_used).' → '.Amount::bytes($after)
            .' of '.Amount::bytes($this->account->space_limit);
    }

    public function visitorsSee(): string
    {
        return $this->touches === 0
            ? 'no change'
            : 'the old site, then the new one; names are given at the end, the start page last';
    }

    public function toSend(): string
    {
        return Amount::bytes($this->plan->bytesToSend()).' in '.Amount::files($this->sends);
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
        $held = count(array_filter(
            $this->plan->items,
            static fn (PlanItem $item): bool => $item->live !== null && $item->isFile(),
        ));

        return $held === 0
            ? 'There is nothing yet, which is noted.'
            : Amount::files($held)." of {$this->place->root}. What is not in the store yet is fetched, read back and "
                .'compared before anything is replaced.';
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
            'ok' => $proof['matches'] !== false && self::answered($proof),
            'words' => $proof['status'].ProofWords::of($proof),
        ], $this->deployment->proofs ?? []);
    }

    /** @param  array<string, mixed>  $proof  as PageProof::toArray() gives it */
    private static function answered(array $proof): bool
    {
        return ($proof['gone'] ?? false) === true ? $proof['error'] === null : $proof['status'] === 200;
    }
}
