<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Mend;

use Cellarium\Core\Package\Finding\FindingCode;

/** A mend of a finding that needs nobody who built the package. */
enum MendKind: string
{
    /** The name in a reference is written as the file is called. */
    case CorrectReference = 'correct_reference';

    /** The reference leads to the nearest file there is: a guess. */
    case PointReference = 'point_reference';

    case LeaveOut = 'leave_out';

    /** The first page gets the name servers look for, and whatever refers to it that name. */
    case RenameStartPage = 'rename_start_page';

    /** A directory becomes the top; what lies beside it is left out. */
    case LiftDirectory = 'lift_directory';

    public static function for(FindingCode $code): ?self
    {
        return match ($code) {
            FindingCode::ReferenceCase => self::CorrectReference,
            FindingCode::ReferenceMissing => self::PointReference,
            FindingCode::LeftoverCopy,
            FindingCode::LeftoverDevelopment,
            FindingCode::SecretKey,
            FindingCode::SecretSetting,
            FindingCode::SecretDump,
            FindingCode::ExecutableFile => self::LeaveOut,
            FindingCode::StartPageName => self::RenameStartPage,
            FindingCode::StartPageElsewhere => self::LiftDirectory,
            default => null,
        };
    }

    /** Whether nobody needs to look at each of them: nothing is guessed. */
    public function isSafe(): bool
    {
        return $this !== self::PointReference;
    }
}
