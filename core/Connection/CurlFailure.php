<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** The failure that libcurl's error number and the server's last reply (RFC 959 section 4.2) mean together. */
final class CurlFailure
{
    /** Numbers of libcurl that PHP has no names for. */
    private const SEND_FAIL_REWIND = 65;

    private const LOGIN_DENIED = 67;

    private const REMOTE_DISK_FULL = 70;

    private const REMOTE_FILE_NOT_FOUND = 78;

    private const PINNED_KEY_DIFFERS = 90;

    public static function reason(int $error, ?string $reply): FailureReason
    {
        $reply ??= '';
        $code = preg_match('/\A(\d{3})[ -]/', $reply, $match) === 1 ? (int) $match[1] : 0;

        // A handshake that fails once the control connection is encrypted is that of a data connection.
        $laterHandshake = $error === CURLE_SSL_CONNECT_ERROR && $code >= 100 && $code < 300 && $code !== 234;

        return match (true) {
            $error === CURLE_COULDNT_RESOLVE_HOST => FailureReason::NameUnknown,
            // The control connection has just named a port for data (RFC 959, RFC 2428), and that one does not answer.
            $error === CURLE_COULDNT_CONNECT && ($code === 227 || $code === 229) => FailureReason::DataRefused,
            $error === CURLE_COULDNT_CONNECT => FailureReason::Unreachable,
            $error === self::PINNED_KEY_DIFFERS => FailureReason::IdentityChanged,
            $error === CURLE_SSL_CACERT => FailureReason::CertificateUntrusted,
            $laterHandshake => FailureReason::DataRefused,
            $error === CURLE_FTP_SSL_FAILED, $error === CURLE_SSL_CONNECT_ERROR => FailureReason::EncryptionRefused,
            $code === 421,
            $code === 425 && preg_match('/too many|maximum|limit/i', $reply) === 1 => FailureReason::TooManyConnections,
            // 425 for what cannot be opened (RFC 959); 522 is what some answer to a session that is not resumed.
            $code === 425,
            $code === 522 && preg_match('/TLS|SSL|session/i', $reply) === 1 => FailureReason::DataRefused,
            $code === 530, $error === self::LOGIN_DENIED => FailureReason::SignInRefused,
            $code === 552, $code === 452, $error === self::REMOTE_DISK_FULL => FailureReason::NoSpace,
            $code === 550, $code === 501, $error === self::REMOTE_FILE_NOT_FOUND => FailureReason::NotFound,
            $code === 553 => FailureReason::Forbidden,
            $error === CURLE_OPERATION_TIMEDOUT => FailureReason::TimedOut,
            $code === 426,
            in_array(
                $error,
                [
                    CURLE_RECV_ERROR,
                    CURLE_SEND_ERROR,
                    CURLE_GOT_NOTHING,
                    CURLE_PARTIAL_FILE,
                    CURLE_ABORTED_BY_CALLBACK,
                    self::SEND_FAIL_REWIND,
                    CURLE_FTP_WEIRD_SERVER_REPLY,
                    CURLE_FTP_WEIRD_PASS_REPLY,
                    CURLE_FTP_WEIRD_PASV_REPLY,
                ],
                true,
            ) && $code < 500 => FailureReason::Disconnected,
            in_array($error, [CURLE_WRITE_ERROR, CURLE_READ_ERROR], true) => FailureReason::LocalFile,
            $code >= 500 => FailureReason::Forbidden,
            default => FailureReason::NotUnderstood,
        };
    }
}
