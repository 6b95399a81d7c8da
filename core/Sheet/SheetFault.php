<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

/** Why a file does not count as a sheet. */
enum SheetFault: string
{
    case NotASheet = 'not_a_sheet';
    case Altered = 'altered';

    /** Signed, whole, and by somebody else. */
    case Foreign = 'foreign';
}
