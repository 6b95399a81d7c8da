<?php

declare(strict_types=1);

namespace App\Models;

/** The state of an FTP user at its host. */
enum FtpUserState: string
{
    /** Asked for; whether it exists is not known yet. */
    case Asked = 'asked';

    /** It exists, and its reach is not proven. */
    case Made = 'made';

    case Open = 'open';

    case Closed = 'closed';

    /** It was asked to be closed and could still sign in, or nobody could try. */
    case ClosingFailed = 'closing_failed';

    case Removed = 'removed';

    /** Those that can touch nothing any more. */
    public const ENDED = [self::Closed, self::Removed];

    public function hasEnded(): bool
    {
        return in_array($this, self::ENDED, true);
    }
}
