<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/**
 * The use of TLS with an FTP server, so that data connections resume the session of the control connection.
 *
 * Many servers refuse a data connection that does not (RFC 4217 section 10 lets them). libcurl 7.88 keeps one session
 * a server: with TLS 1.3 each connection is given new tickets, so that after the first transfer the data connection's
 * own are kept and not the control connection's, and the second transfer is refused. With TLS 1.2 the session stays.
 */
enum TlsUse: string
{
    /** TLS 1.2, sessions are resumed. */
    case Resuming = '1.2';

    /** TLS 1.3, for servers that know nothing older. */
    case Newest = '1.3';

    /** TLS 1.3 and a sign-in for each transfer, for servers that know nothing older and want sessions resumed. */
    case NewestOnce = '1.3-once';

    /** What libcurl's CURLOPT_SSLVERSION takes. */
    public function curlVersions(): int
    {
        return $this === self::Resuming
            ? CURL_SSLVERSION_TLSv1_2 | CURL_SSLVERSION_MAX_TLSv1_2
            : CURL_SSLVERSION_TLSv1_2;
    }

    /** What to try after this one did not do; null when there is nothing left. */
    public function next(): ?self
    {
        return match ($this) {
            self::Resuming => self::Newest,
            self::Newest => self::NewestOnce,
            self::NewestOnce => null,
        };
    }

    public function sentence(): string
    {
        return match ($this) {
            self::Resuming => 'TLS 1.2, sessions are resumed',
            self::Newest => 'TLS 1.3 only',
            self::NewestOnce => 'TLS 1.3 only, and a sign-in for each transfer, which is slow: the server wants '
                .'sessions resumed and knows no TLS 1.2',
        };
    }
}
