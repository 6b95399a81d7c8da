<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Work\RecoversForgotten;
use App\Work\RecoversOrphans;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * Changes by hand whose worker was ended.
 *
 * @implements RecoversForgotten<ChangeByHand>
 * @implements RecoversOrphans<ChangeByHand>
 */
final readonly class ChangeRecovery implements RecoversForgotten, RecoversOrphans
{
    /** One that nobody has begun after this long. */
    private const NEVER_BEGUN_SECONDS = 600;

    public function __construct(private CarryOutByHand $byHand)
    {
    }

    public function inHand(): Builder
    {
        return ChangeByHand::where('state', ChangeState::Running);
    }

    public function locks(Model $row): array
    {
        return CarryOutByHand::lockNames($row);
    }

    public function settle(Model $row): bool
    {
        $isOrphaned = $row->refresh()->state === ChangeState::Running;
        $isOrphaned && $this->byHand->settle($row);

        return $isOrphaned;
    }

    /** Whoever waits behind others is not given up: nobody holds the locks then. */
    public function forgotten(\DateTimeInterface $since): Builder
    {
        return ChangeByHand::whereIn('state', [ChangeState::Waiting, ChangeState::Counting])
            ->where('updated_at', '<=', min($since, now()->subSeconds(self::NEVER_BEGUN_SECONDS)));
    }

    public function takeUp(Model $row): bool
    {
        $this->byHand->giveUp($row);

        return true;
    }
}
