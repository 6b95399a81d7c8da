<?php

declare(strict_types=1);

namespace Tests\Core\Connection;

use Cellarium\Core\Connection\CurlFailure;
use Cellarium\Core\Connection\FailureReason;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** libcurl's error number and the server's last reply together say what happened. */
final class CurlFailureTest extends TestCase
{
    /** @return iterable<string, array{int, string|null, FailureReason}> */
    public static function failures(): iterable
    {
        yield 'no such name' => [CURLE_COULDNT_RESOLVE_HOST, null, FailureReason::NameUnknown];
        yield 'nobody there' => [CURLE_COULDNT_CONNECT, null, FailureReason::Unreachable];
        yield 'a data port that is shut' => [
            CURLE_COULDNT_CONNECT,
            '229 Entering Extended Passive Mode (|||4711|)',
            FailureReason::DataRefused,
        ];
        yield 'no TLS in common' => [CURLE_SSL_CONNECT_ERROR, '234 Proceed', FailureReason::EncryptionRefused];
        yield 'no TLS at all' => [CURLE_FTP_SSL_FAILED, '502 AUTH is not known', FailureReason::EncryptionRefused];
        yield 'cut in the handshake of a data connection' => [
            CURLE_SSL_CONNECT_ERROR,
            '150 Send it',
            FailureReason::DataRefused,
        ];
        yield 'a certificate of nobody' => [CURLE_SSL_CACERT, '234 Proceed', FailureReason::CertificateUntrusted];
        yield 'another key than the accepted one' => [90, '234 Proceed', FailureReason::IdentityChanged];
        yield 'a wrong password' => [67, '530 Login or password is not right', FailureReason::SignInRefused];
        yield 'closed meanwhile' => [
            CURLE_FTP_COULDNT_RETR_FILE,
            '530 Please sign in first',
            FailureReason::SignInRefused,
        ];
        yield 'full' => [CURLE_SEND_ERROR, '552 Full', FailureReason::NoSpace];
        yield 'too many' => [67, '421 Too many connections', FailureReason::TooManyConnections];
        yield 'a data connection that could not be built' => [
            CURLE_SEND_ERROR,
            '425 Unable to build data connection: Operation not permitted',
            FailureReason::DataRefused,
        ];
        yield 'a session that was not resumed' => [
            CURLE_SEND_ERROR,
            '522 SSL connection failed: session reuse required',
            FailureReason::DataRefused,
        ];
        yield 'too many data connections' => [
            CURLE_SEND_ERROR,
            '425 Too many data connections',
            FailureReason::TooManyConnections,
        ];
        yield 'absent' => [78, '550 Not there', FailureReason::NotFound];
        yield 'dropped' => [CURLE_RECV_ERROR, '150 Here it comes', FailureReason::Disconnected];
        yield 'silent' => [CURLE_OPERATION_TIMEDOUT, '150 Here it comes', FailureReason::TimedOut];
        yield 'a sink of our own that is full' => [CURLE_WRITE_ERROR, '150 Here it comes', FailureReason::LocalFile];
        yield 'words nobody knows' => [CURLE_FTP_WEIRD_SERVER_REPLY, '599 What', FailureReason::Forbidden];
    }

    #[DataProvider('failures')]
    public function test_what_happened(int $error, ?string $reply, FailureReason $reason): void
    {
        self::assertSame($reason, CurlFailure::reason($error, $reply));
    }
}
