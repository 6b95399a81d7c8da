<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

/** The origin of a change. */
enum SheetKind: string
{
    case Deployed = 'deployed';
    case BroughtBack = 'brought_back';
    case ByHand = 'by_hand';

    /** Found at a backup; nobody did it here. */
    case ByNobodyHere = 'by_nobody_here';

    public function label(): string
    {
        return match ($this) {
            self::Deployed => 'Deployed',
            self::BroughtBack => 'Brought back',
            self::ByHand => 'By hand',
            self::ByNobodyHere => 'By nobody here',
        };
    }
}
