<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Failure\Problem;
use App\Models\BulkChange;
use App\Models\BulkChangeState;
use App\Models\BulkKind;
use App\Models\Closing;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\Person;
use App\Models\ProofKind;
use App\Models\RecordKind;
use App\Record\Record;
use App\Work\Tasks;
use Carbon\CarbonImmutable;
use Cellarium\Core\Storage\Locks;
use Illuminate\Support\Facades\DB;

/**
 * One change to many FTP users: first what it would do to each, then one after the other, each with its proof.
 *
 * What is done is written down user by user, so that a worker that was killed goes on with the next.
 */
final readonly class BulkChanges
{
    public const MOST = 500;

    public function __construct(private FtpUsers $users, private Locks $locks)
    {
    }

    /**
     * Says what would become of each; nothing is changed.
     *
     * @param  list<int>  $ids
     *
     * @throws Problem
     */
    public function draft(BulkKind $kind, array $ids, ?CarbonImmutable $closesAt, ?Person $person): BulkChange
    {
        $ids !== [] || throw new Problem('Tick the FTP users first.');
        count($ids) <= self::MOST || throw new Problem('No more than '.self::MOST.' at once.');
        $kind !== BulkKind::Move
            || $closesAt?->isFuture() === true
            || throw new Problem('The closing time is missing or lies in the past.');
        $items = [];
        foreach (
            FtpUser::with('account.client', 'account.sites', 'person')
                ->whereIn('id', $ids)
                ->orderBy('created_at')
                ->orderBy('id')
                ->get() as $user
        ) {
            [$does, $words] = $this->foretell($kind, $user, $closesAt);
            $items[] = [
                'user' => $user->id,
                'login' => $user->login,
                'client' => $user->account->client->name,
                'does' => $does,
                'words' => $words,
                'result' => null,
            ];
        }

        return BulkChange::create([
            'kind' => $kind,
            'closes_at' => $closesAt,
            'state' => BulkChangeState::Draft,
            'items' => $items,
            'person_id' => $person?->id,
        ]);
    }

    /** @return array{bool, string} whether anything would be done, and what */
    private function foretell(BulkKind $kind, FtpUser $user, ?CarbonImmutable $closesAt): array
    {
        $byHand = $this->users->byHand($user) ? ' by hand at the provider, with an instruction sheet' : '';

        return match (true) {
            $user->hasEnded() => [false, 'has ended already; nothing is done'],
            $user->action() !== null && $kind !== BulkKind::Move => [
                false,
                'something else is still to be done about it; see to that first',
            ],
            $kind === BulkKind::Close
                && $user
                    ->deployments()
                    ->whereIn('state', [DeploymentState::Running, DeploymentState::Waiting, DeploymentState::Queued])
                    ->exists() => [false, 'a deployment is using it just now; it is left open'],
            $kind === BulkKind::Close => [
                true,
                "closed$byHand; "
                .($byHand === ''
                    ? 'its sign-in is then tried and has to be refused'
                    : 'proven when you say that it is done'),
            ],
            $kind === BulkKind::Renew && $user->state !== FtpUserState::Open => [false, 'is not open; nothing is done'],
            $kind === BulkKind::Renew => [
                true,
                'gets another '
                    ."password$byHand; whoever uses it can no longer sign in until the new settings are handed over",
            ],
            $user->ends !== Closing::AtTime => [
                true,
                "closes {$user->endsWords()} until now, then at {$closesAt?->shown('j M Y H:i')}",
            ],
            default => [true, "from {$user->endsWords()} to {$closesAt?->shown('j M Y H:i')}"],
        };
    }

    /** @return bool false when it was started already */
    public function start(BulkChange $change): bool
    {
        $started = BulkChange::where('id', $change->id)
            ->where('state', BulkChangeState::Draft)
            ->update(['state' => BulkChangeState::Going]) === 1;
        if ($started) {
            Record::write(
                RecordKind::FtpUsersChanged,
                count(array_filter($change->items, static fn (array $item): bool => $item['does']))
                    .' FTP users: '
                    .$this->title($change)
                    .' started',
            );
            Tasks::order(CarryOutBulk::class, $change->id);
        }

        return $started;
    }

    /** One worker at a time: the lock goes with the process that holds it. */
    public function carryOut(BulkChange $change): void
    {
        $lock = $this->locks->acquire("bulk-$change->id");
        if ($lock === null) {
            return;
        }
        try {
            $this->carryOutLocked($change);
        } finally {
            $lock->release();
        }
    }

    private function carryOutLocked(BulkChange $change): void
    {
        foreach (array_keys($change->items) as $at) {
            $item = $change->refresh()->items[$at];
            if (! $item['does'] || $item['result'] !== null) {
                continue;
            }
            [$ok, $words] = $this->one($change, (int) $item['user']);
            DB::transaction(static function () use ($change, $at, $ok, $words): void {
                $items = BulkChange::lockForUpdate()->findOrFail($change->id)->items;
                $items[$at]['result'] = ['ok' => $ok, 'words' => $words];
                $change->update(['items' => $items]);
            });
        }
        $change->update(['state' => BulkChangeState::Done]);
    }

    /** @return array{bool, string} */
    private function one(BulkChange $change, int $id): array
    {
        $user = FtpUser::with('account.client', 'account.sites')->find($id);
        if ($user === null || $user->hasEnded()) {
            return [$change->kind === BulkKind::Close, 'had ended already'];
        }
        try {
            return match ($change->kind) {
                BulkKind::Close => $this->close($user),
                BulkKind::Renew => $this->renew($user),
                default => $this->move($user, $change->closes_at ?? throw new Problem('The closing time is missing.')),
            };
        } catch (\Throwable $failure) {
            return Problem::isExpected($failure) ? [false, Problem::words($failure)] : throw $failure;
        }
    }

    /** @return array{bool, string} */
    private function close(FtpUser $user): array
    {
        $closed = $this->users->close($user, 'with others');

        return match (true) {
            $closed => [
                true,
                'closed; '.$user->proofs()->where('kind', ProofKind::Refusal)->latest('id')->value('sentence'),
            ],
            $this->users->byHand($user) => [true, 'waits to be closed at the provider'],
            default => [false, (string) $user->trouble],
        };
    }

    /** @return array{bool, string} */
    private function renew(FtpUser $user): array
    {
        $this->users->renew($user);
        if ($this->users->byHand($user)) {
            return [true, 'waits for its password to be set at the provider'];
        }

        return $this->users->settle($user)
            ? [true, 'renewed and proven by signing in; hand it over']
            : [false, (string) $user->trouble];
    }

    /** @return array{bool, string} */
    private function move(FtpUser $user, CarbonImmutable $closesAt): array
    {
        $this->users->endAt($user, Closing::AtTime, $closesAt, '');
        $holds = $user->state !== FtpUserState::Open || $user->action() !== null || $this->users->settle($user);

        return [
            $holds,
            "closes {$user->endsWords()}"
            .($holds ? '; its reach is as proven' : ", but its proof does not hold: $user->trouble"),
        ];
    }

    public function title(BulkChange $change): string
    {
        return match ($change->kind) {
            BulkKind::Close => 'closing',
            BulkKind::Renew => 'new passwords',
            default => "closing time moved to {$change->closes_at?->shown('j M Y H:i')}",
        };
    }
}
