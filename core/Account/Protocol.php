<?php

declare(strict_types=1);

namespace Cellarium\Core\Account;

/** How an account is reached. */
enum Protocol: string
{
    case Ftp = 'ftp';
    case FtpsExplicit = 'ftps';
    case FtpsImplicit = 'ftps-implicit';

    /** The port meant when none is given (RFC 959, RFC 4217; 990 by IANA). */
    public function defaultPort(): int
    {
        return $this === self::FtpsImplicit ? 990 : 21;
    }

    public function isEncrypted(): bool
    {
        return $this !== self::Ftp;
    }

    public function label(): string
    {
        return match ($this) {
            self::Ftp => 'plain FTP',
            self::FtpsExplicit => 'FTP over TLS',
            self::FtpsImplicit => 'FTP over TLS, implicit',
        };
    }

    public function scheme(): string
    {
        return $this === self::FtpsImplicit ? 'ftps' : 'ftp';
    }
}
