<?php

declare(strict_types=1);

namespace App\Models;

/** The scope of a token; never more than its person may do. */
enum TokenScope: string
{
    case DeliverPackages = 'deliver_packages';

    /** Asking what is wrong with a package; nothing of it is kept. */
    case InspectPackages = 'inspect_packages';

    public function words(): string
    {
        return match ($this) {
            self::DeliverPackages => 'deliver packages',
            self::InspectPackages => 'have packages inspected',
        };
    }

    /** Where it is used. */
    public function path(): string
    {
        return match ($this) {
            self::DeliverPackages => '/api/packages',
            self::InspectPackages => '/api/inspections',
        };
    }

    /** Whoever delivers may ask first. */
    public function allows(self $asked): bool
    {
        return $this === $asked || $this === self::DeliverPackages;
    }
}
