<?php

declare(strict_types=1);

namespace App\Text;

use Carbon\CarbonImmutable;
use DateTimeInterface;

/**
 * Moments as whoever looks wants them: in their time zone, with 24 or 12 hours. What is stored and what stands in the
 * record has the application's time zone, whoever caused it.
 */
final class When
{
    private static string $zone = '';

    private static bool $twentyFourHours = true;

    /**
     * From here on, until the end of the request.
     *
     * @param  string  $zone  of the IANA time zone database; "" for that of the application
     */
    public static function follow(string $zone, bool $twentyFourHours): void
    {
        [self::$zone, self::$twentyFourHours] = [$zone, $twentyFourHours];
    }

    /** Also as a method of every moment: $at->shown('j M H:i'). */
    public static function shown(DateTimeInterface $moment, string $format): string
    {
        if (self::$zone === '' && self::$twentyFourHours) {
            return $moment->format($format); // All moments here have the application's time zone.
        }

        return CarbonImmutable::instance($moment)
            ->setTimezone(self::zone())
            ->format(self::$twentyFourHours ? $format : str_replace(['H:i:s', 'H:i'], ['g:i:s a', 'g:i a'], $format));
    }

    /**
     * What is written down for everybody, in the application's time zone.
     *
     * @param  callable(): string  $sentence
     */
    public static function asRecorded(callable $sentence): string
    {
        $own = [self::$zone, self::$twentyFourHours];
        self::follow('', true);
        try {
            return $sentence();
        } finally {
            self::follow(...$own);
        }
    }

    /** For a field of the kind datetime-local, which has no time zone of its own. */
    public static function field(DateTimeInterface $moment): string
    {
        return CarbonImmutable::instance($moment)->setTimezone(self::zone())->format('Y-m-d\TH:i');
    }

    /** What such a field gave, to the minute; null when it is no time. */
    public static function typed(string $field): ?CarbonImmutable
    {
        return CarbonImmutable::canBeCreatedFromFormat($field, 'Y-m-d\TH:i')
            ? CarbonImmutable::createFromFormat('Y-m-d\TH:i', $field, self::zone())
                ->startOfMinute()
                ->setTimezone((string) config('app.timezone'))
            : null;
    }

    /** At six in the evening where whoever looks is, today or so many days on. */
    public static function evening(int $days = 0): CarbonImmutable
    {
        return CarbonImmutable::now(self::zone())->addDays($days)->setTime(18, 0);
    }

    /** Of whoever looks. */
    public static function zone(): string
    {
        return self::$zone === '' ? (string) config('app.timezone') : self::$zone;
    }
}
