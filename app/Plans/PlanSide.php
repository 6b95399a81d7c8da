<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Deployment;
use App\Models\DeploymentKind;
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

    public function label(?Deployment $deployment): string
    {
        return match ($this) {
            self::Deployed => 'Last deployed',
            self::Live => $deployment?->state->isOver() === true ? 'On the server before' : 'On the server now',
            self::Package => match (true) {
                $deployment?->kind === DeploymentKind::Files => 'Brought',
                $deployment?->bringsBack() === true => 'In the backup',
                default => 'In the package',
            },
        };
    }
}
