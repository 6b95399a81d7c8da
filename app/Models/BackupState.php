<?php

declare(strict_types=1);

namespace App\Models;

/** The state of a backup. */
enum BackupState: string
{
    case Taking = 'taking';

    /** Much less is there than before; a person says whether that is right. */
    case Question = 'question';

    case Cancelled = 'cancelled';

    /** Its stored copy was read back. */
    case Verified = 'verified';

    case Failed = 'failed';

    /** Its time was over; what it held is not stored any more. */
    case Expired = 'expired';

    /** How it stands, in a word or two. */
    public function label(): string
    {
        return match ($this) {
            self::Taking => 'being taken',
            self::Question => 'a question',
            self::Cancelled => 'cancelled',
            self::Verified => 'copy read back',
            self::Failed => 'failed',
            self::Expired => 'not stored any more',
        };
    }

    /** The style its label is shown in. */
    public function tone(): string
    {
        return match ($this) {
            self::Taking => 'later',
            self::Question => 'soon',
            self::Cancelled, self::Expired => 'plain',
            self::Verified => 'proven',
            self::Failed => 'now',
        };
    }
}
