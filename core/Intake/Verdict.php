<?php

declare(strict_types=1);

namespace Cellarium\Core\Intake;

/** The outcome of taking over one row of a list. */
enum Verdict: string
{
    case Fresh = 'new';
    case Same = 'same';
    case Changed = 'changed';
    case Refused = 'refused';
}
