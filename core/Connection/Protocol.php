<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** A protocol over which an account is reached. */
enum Protocol: string
{
    case Ftp = 'ftp';
    case FtpsExplicit = 'ftps';
    case FtpsImplicit = 'ftps-implicit';
    case Sftp = 'sftp';

    /** The port meant when none is given (RFC 959, RFC 4217, RFC 4251; 990 by IANA). */
    public function defaultPort(): int
    {
        return match ($this) {
            self::Ftp, self::FtpsExplicit => 21,
            self::FtpsImplicit => 990,
            self::Sftp => 22,
        };
    }

    public function isEncrypted(): bool
    {
        return $this !== self::Ftp;
    }

    public function usesTls(): bool
    {
        return $this === self::FtpsExplicit || $this === self::FtpsImplicit;
    }

    /** What is at stake without encryption, in one line; null with it. */
    public function exposes(): ?string
    {
        return $this === self::Ftp
            ? 'Not encrypted: whoever sits on the way can read login, password and files, and change them.'
            : null;
    }

    public function label(): string
    {
        return match ($this) {
            self::Ftp => 'plain FTP',
            self::FtpsExplicit => 'FTP over TLS',
            self::FtpsImplicit => 'FTP over TLS, implicit',
            self::Sftp => 'SFTP',
        };
    }

    public function scheme(): string
    {
        return match ($this) {
            self::Ftp, self::FtpsExplicit => 'ftp',
            self::FtpsImplicit => 'ftps',
            self::Sftp => 'sftp',
        };
    }
}
