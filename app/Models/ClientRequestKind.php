<?php

declare(strict_types=1);

namespace App\Models;

/** What a client's person asks the agency for. */
enum ClientRequestKind: string
{
    case Change = 'change';

    case FtpUser = 'ftp_user';

    public function title(): string
    {
        return match ($this) {
            self::Change => 'A change is asked for',
            self::FtpUser => 'An FTP user is asked for',
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::Change => 'a change',
            self::FtpUser => 'an FTP user',
        };
    }
}
