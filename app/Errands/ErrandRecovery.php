<?php

declare(strict_types=1);

namespace App\Errands;

use App\Models\Errand;
use App\Models\ErrandState;
use App\Work\RecoversForgotten;
use App\Work\RecoversOrphans;
use App\Work\Tasks;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * Errands whose worker was ended.
 *
 * @implements RecoversForgotten<Errand>
 * @implements RecoversOrphans<Errand>
 */
final class ErrandRecovery implements RecoversForgotten, RecoversOrphans
{
    public function inHand(): Builder
    {
        return Errand::where('state', ErrandState::Running);
    }

    public function locks(Model $row): array
    {
        return [ErrandTask::lockName($row->id)];
    }

    /** It may have been half done, and is not begun again by itself: the one who asked decides. */
    public function settle(Model $row): bool
    {
        return Errand::where(['id' => $row->id, 'state' => ErrandState::Running])->update([
            'state' => ErrandState::Failed,
            'words' => 'The worker that did it was ended from outside, before the server had answered. Look what is '
                .'true, and ask again.',
        ]) === 1;
    }

    public function forgotten(\DateTimeInterface $since): Builder
    {
        return Errand::where('state', ErrandState::Waiting)->where('updated_at', '<=', $since);
    }

    public function takeUp(Model $row): bool
    {
        $row->touch();
        Tasks::order(ErrandTask::find($row), $row->id);

        return false;
    }
}
