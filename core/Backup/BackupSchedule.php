<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use DateTimeImmutable;
use DateTimeZone;

/**
 * The interval at which a site is backed up at the least, and the hours of its own day for it.
 *
 * From a day on, backups are taken within the quiet hours, as late as the promise allows; a promise of fewer hours
 * cannot wait for them. Days are those of the calendar of the zone, so that one of 23 or of 25 hours is a day.
 */
final readonly class BackupSchedule
{
    private const HOURS_OF_A_DAY = 24;

    private const MINUTES_OF_A_DAY = 1440;

    /**
     * @param  int<1, max>  $hours  between two backups
     * @param  int<0, 1439>  $quietFrom  minutes after midnight
     * @param  int<0, 1439>  $quietUntil  minutes after midnight, perhaps of the next day; the same as from: all day
     */
    public function __construct(
        public int $hours,
        public int $quietFrom,
        public int $quietUntil,
        public DateTimeZone $zone,
    ) {
    }

    /** Whether there is time to wait for the quiet hours. */
    public function waitsForQuiet(): bool
    {
        return $this->hours >= self::HOURS_OF_A_DAY;
    }

    /** When it is broken, if there is none until then; null where there never was one: it is broken. */
    public function brokenAt(?DateTimeImmutable $last): ?DateTimeImmutable
    {
        return $last === null ? null : $this->after($last);
    }

    /**
     * When the next one is due.
     *
     * @param  DateTimeImmutable|null  $last  when the last one was taken; one of the future counts as none, since the
     *     clock was wrong then or is now
     * @param  float  $share  0 to less than 1: where within the quiet hours, so that the sites of a host do not all
     *     come at once
     */
    public function due(?DateTimeImmutable $last, DateTimeImmutable $now, float $share = 0.0): DateTimeImmutable
    {
        if ($last === null || $last > $now) {
            return $now;
        }
        $broken = $this->after($last);
        if (! $this->waitsForQuiet()) {
            return $broken;
        }
        $day = $broken;
        if ($this->slot($day, $share) > $broken) {
            $day = $broken->setTimezone($this->zone)->modify('-1 day');
        }

        // One taken within the same quiet hours stands for them; at the same time of its last day it is quiet as well.
        return $this->slot($day, 0.0) > $last ? $this->slot($day, $share) : $broken;
    }

    /** When work begins within the quiet hours that begin on the day of a moment. */
    private function slot(DateTimeImmutable $day, float $share): DateTimeImmutable
    {
        $length = ($this->quietUntil - $this->quietFrom + self::MINUTES_OF_A_DAY) % self::MINUTES_OF_A_DAY;
        $length = $length === 0 ? self::MINUTES_OF_A_DAY : $length;
        $minute = $this->quietFrom + (int) floor($share * $length);

        // Beyond midnight it is the next day; an hour that a day does not have is moved behind it.
        return $day->setTimezone($this->zone)->setTime(intdiv($minute, 60), $minute % 60);
    }

    private function after(DateTimeImmutable $last): DateTimeImmutable
    {
        $days = intdiv($this->hours, self::HOURS_OF_A_DAY);
        $hours = $this->hours % self::HOURS_OF_A_DAY;
        $then = $last->setTimezone($this->zone)->modify("+$days days");

        // In seconds, since hours of the clock may be missing.
        return $hours === 0 ? $then : $then->setTimestamp($then->getTimestamp() + $hours * 3600);
    }
}
