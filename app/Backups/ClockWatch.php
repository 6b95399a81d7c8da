<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Models\Alarm;
use App\Models\AlarmKind;
use App\Text\When;
use Carbon\CarbonImmutable;
use Cellarium\Core\Storage\SteadyClock;
use Illuminate\Support\Facades\Cache;

/** The clock of this machine, looked at every minute: what removes for age asks whether it can be believed. */
final class ClockWatch
{
    private const KEPT_AS = 'clock';

    public static function look(): SteadyClock
    {
        $now = now()->getTimestamp();
        $kept = Cache::get(self::KEPT_AS);
        $clock = is_array($kept) ? SteadyClock::fromList($kept)->at($now) : SteadyClock::begin($now);
        Cache::forever(self::KEPT_AS, $clock->toList());
        $clock->believedFrom() === null
            ? Alarm::end(AlarmKind::Clock)
            : Alarm::raise(AlarmKind::Clock, self::words($clock));

        return $clock;
    }

    /** @throws Problem while it is not believed; nothing may be removed for its age */
    public static function mustBeSteady(): void
    {
        $clock = self::look();
        $clock->believedFrom() === null || throw new Problem(self::words($clock));
    }

    private static function words(SteadyClock $clock): string
    {
        $at = static fn (int $seconds): string => When::shown(
            CarbonImmutable::createFromTimestamp($seconds),
            'j M Y H:i',
        );

        $how = $clock->by > 0 ? 'put ahead, or the machine was off' : 'put back';

        return "The clock of this machine was $how: it showed {$at((int) $clock->leapt - $clock->by)}, then "
            ."{$at((int) $clock->leapt)}. Nothing is removed for its age until {$at((int) $clock->believedFrom())}. "
            .'If that is not what time it is, put the clock right.';
    }
}
