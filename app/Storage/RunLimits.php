<?php

declare(strict_types=1);

namespace App\Storage;

use App\Models\Backup;
use App\Models\BackupState;
use App\Models\Site;
use Cellarium\Core\Transfer\SurveyLimits;

/** The settings that bound what runs do, as values of the core. */
final class RunLimits
{
    public static function survey(): SurveyLimits
    {
        return new SurveyLimits(
            (int) config('cellarium.survey.entries'),
            (int) config('cellarium.survey.depth'),
            (int) config('cellarium.survey.seconds'),
        );
    }

    public static function collapseShare(): float
    {
        return max(0, min(100, (int) config('cellarium.collapse_share'))) / 100;
    }

    /** What each connection may move: its part of what the host is to bear; null for as much as it can. */
    public static function bytesASecond(): ?int
    {
        $kilobytes = (int) config('cellarium.rate_limit');

        return $kilobytes <= 0 ? null : max(1, intdiv(1000 * $kilobytes, (int) config('cellarium.host_connections')));
    }

    public static function proofShare(): float
    {
        return max(1, min(100, (int) config('cellarium.proof_share'))) / 100;
    }

    /** Whether the next backup of a site reads every file anew: one in so many does. */
    public static function readsAnew(Site $site): bool
    {
        $every = max(1, (int) config('cellarium.read_anew'));
        $last = Backup::where(['site_id' => $site->id, 'state' => BackupState::Verified])
            ->latest('id')
            ->limit($every - 1)
            ->pluck('taken_over_files');

        return $every === 1
            || ($last->count() === $every - 1 && $last->every(static fn (mixed $files): bool => $files > 0));
    }
}
