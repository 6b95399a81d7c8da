<?php

declare(strict_types=1);

namespace App\Today;

enum Urgency: int
{
    case Now = 0;
    case Soon = 1;
    case WhenYouCan = 2;

    public function label(): string
    {
        return match ($this) {
            self::Now => 'today',
            self::Soon => 'this week',
            self::WhenYouCan => 'when you can',
        };
    }

    /** The style it is shown in. */
    public function tone(): string
    {
        return match ($this) {
            self::Now => 'now',
            self::Soon => 'soon',
            self::WhenYouCan => 'later',
        };
    }
}
