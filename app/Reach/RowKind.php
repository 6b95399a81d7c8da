<?php

declare(strict_types=1);

namespace App\Reach;

/** The kind of a row of the reach map. */
enum RowKind
{
    case Directory;

    case Link;

    /** Directories that are not shown, as one row that opens. */
    case Fold;
}
