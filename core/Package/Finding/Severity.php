<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

/** The severity of a finding. */
enum Severity: string
{
    /** The package is not deployed as long as this stands. */
    case Stop = 'stop';

    /** Visitors would see that something is wrong. */
    case Warn = 'warn';

    case Note = 'note';
}
