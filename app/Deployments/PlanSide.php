<?php

declare(strict_types=1);

namespace App\Deployments;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Plan\PlanItem;

/** A side of a plan; the value stands in addresses. */
enum PlanSide: string
{
    case Deployed = 'deployed';
    case Live = 'live';
    case Package = 'package';

    public function of(PlanItem $item): ?ManifestEntry
    {
        return match ($this) {
            self::Deployed => $item->deployed,
            self::Live => $item->live,
            self::Package => $item->target,
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::Deployed => 'Last deployed',
            self::Live => 'On the server now',
            self::Package => 'In the package',
        };
    }
}
