<?php

declare(strict_types=1);

namespace App\Runs;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\SamePlace;
use Illuminate\Database\Eloquent\Builder;

/** The run that another one waits for: it goes on at the same login, or in the same directory through another. */
final class RunAhead
{
    public static function find(Deployment $deployment): ?Deployment
    {
        $site = $deployment->site;
        $same = SamePlace::ofSite($site)->sites;

        return Deployment::where('state', DeploymentState::Running)
            ->whereKeyNot($deployment->id)
            ->whereHas('site', static fn (Builder $query) => $query->where(
                static fn (Builder $either) => $either->where('account_id', $site->account_id)->orWhereIn('id', $same),
            ))
            ->orderBy('id')
            ->first();
    }

    /** Says of one that is queued that it waits, where another is ahead of it. */
    public static function note(Deployment $deployment): void
    {
        $ahead = self::find($deployment);
        $ahead === null || Deployment::where(['id' => $deployment->id, 'state' => DeploymentState::Queued])
            ->update(['state' => DeploymentState::Waiting, 'waits_for_id' => $ahead->id]);
    }
}
