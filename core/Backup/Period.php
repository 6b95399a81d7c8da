<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

/** A stretch of the calendar of which one backup is kept. */
enum Period: string
{
    case Hour = 'hour';

    case Day = 'day';

    case Week = 'week';

    case Month = 'month';

    case Year = 'year';

    /** For DateTimeInterface::format(), the same for all moments within it and for no other. */
    public function format(): string
    {
        return match ($this) {
            self::Hour => 'Y-m-d H O', // An hour that comes twice in autumn is two.
            self::Day => 'Y-m-d',
            self::Week => 'o-W',
            self::Month => 'Y-m',
            self::Year => 'Y',
        };
    }

    public function keeps(): KeptBecause
    {
        return match ($this) {
            self::Hour => KeptBecause::Hourly,
            self::Day => KeptBecause::Daily,
            self::Week => KeptBecause::Weekly,
            self::Month => KeptBecause::Monthly,
            self::Year => KeptBecause::Yearly,
        };
    }
}
