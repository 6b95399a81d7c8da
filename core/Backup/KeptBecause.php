<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

/** Why a backup stays. */
enum KeptBecause: string
{
    case OnlyOne = 'only_one';

    case Newest = 'newest';

    case Pinned = 'pinned';

    case WayBack = 'way_back';

    case Hourly = 'hourly';

    case Daily = 'daily';

    case Weekly = 'weekly';

    case Monthly = 'monthly';

    case Yearly = 'yearly';

    public function words(): string
    {
        return match ($this) {
            self::OnlyOne => 'the only one',
            self::Newest => 'the newest',
            self::Pinned => 'pinned',
            self::WayBack => 'a way back',
            self::Hourly => 'of an hour',
            self::Daily => 'of a day',
            self::Weekly => 'of a week',
            self::Monthly => 'of a month',
            self::Yearly => 'of a year',
        };
    }
}
