<?php

declare(strict_types=1);

namespace Cellarium\Core\Intake;

/** What taking over a list would do with one of its rows. */
enum Verdict: string
{
    case Fresh = 'new';
    case Same = 'same';
    case Changed = 'changed';
    case Refused = 'refused';
}
