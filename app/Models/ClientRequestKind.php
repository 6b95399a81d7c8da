<?php

declare(strict_types=1);

namespace App\Models;

/** The kind of a request of a client's person. */
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
