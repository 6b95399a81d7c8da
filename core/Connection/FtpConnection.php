<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use CurlHandle;
use CurlMultiHandle;

/** One reused handle of libcurl, so one connection to an FTP server; requests go through it one after the other. */
final class FtpConnection
{
    /** How long a look at the sockets may wait, in seconds; see exchange(). */
    private const LOOK_SECONDS = 0.01;

    /** "ftp://host:21", without a slash at its end. */
    public readonly string $base;

    /**
     * Errors of libcurl after which the server has answered every command, so that its next reply belongs to the next
     * one: quoted command, access, type, retrieving or storing refused, file not found.
     */
    private const ANSWERED = [
        CURLE_OK,
        CURLE_FTP_QUOTE_ERROR,
        CURLE_FTP_ACCESS_DENIED,
        CURLE_FTP_COULDNT_SET_BINARY,
        CURLE_FTP_COULDNT_RETR_FILE,
        CURLE_FTP_COULDNT_STOR_FILE,
        78,
    ];

    private CurlHandle $curl;

    private CurlMultiHandle $connection;

    private readonly FtpReplies $replies;

    /** Whether an answer may still be on its way, which would be taken for that to the next command. */
    private bool $unsure = false;

    /** How TLS is spoken with this server, found out as it goes. */
    private TlsUse $tls;

    /** @param  (\Closure(int): bool)|null  $carryOn hears the bytes moved so far in a transfer; false breaks it off */
    public function __construct(
        private readonly Endpoint $endpoint,
        private readonly ConnectionSettings $settings,
        private readonly ?\Closure $carryOn,
    ) {
        $this->replies = new FtpReplies;
        $this->tls = $endpoint->tls;
        $this->base = "{$endpoint->protocol->scheme()}://$endpoint->host:$endpoint->port";
        $this->curl = curl_init();
        $this->connection = curl_multi_init();
    }

    /**
     * @param  array<int, mixed>  $options  of libcurl, beside those every request has
     * @param  bool  $transfers  whether it opens a data connection
     * @return int libcurl's error number, CURLE_OK when all went well
     */
    public function request(string $url, array $options, bool $transfers = false): int
    {
        if ($transfers && $this->tls === TlsUse::NewestOnce) {
            $options += [CURLOPT_FRESH_CONNECT => true, CURLOPT_FORBID_REUSE => true];
        }
        $error = $this->attempt($url, $options);
        if ($error === CURLE_SSL_CONNECT_ERROR && $this->tls === TlsUse::Resuming && $this->isHandshakeOfControl()) {
            $this->tls = TlsUse::Newest;
            $error = $this->attempt($url, $options);
            // What failed both ways failed for another reason.
            $error !== CURLE_SSL_CONNECT_ERROR ?: $this->tls = TlsUse::Resuming;
        }

        return $error;
    }

    /** Lets go of the connection; the next request makes a new one. */
    public function renew(): void
    {
        $this->unsure = true;
    }

    /** What is known to do with this server by now; to be remembered for its next connections. */
    public function tls(): TlsUse
    {
        return $this->tls;
    }

    /**
     * To be called when a data connection was refused.
     *
     * @return bool whether the same is worth another try, over a connection of its own
     */
    public function givesEachTransferItsOwn(): bool
    {
        if (! $this->endpoint->protocol->usesTls() || $this->tls !== TlsUse::Newest) {
            return false;
        }
        $this->tls = TlsUse::NewestOnce;

        return true;
    }

    /** @param  array<int, mixed>  $options */
    private function attempt(string $url, array $options): int
    {
        if ($this->unsure) {
            $this->curl = curl_init();
            $this->connection = curl_multi_init();
        }
        $this->replies->lines = [];
        curl_reset($this->curl);
        curl_setopt_array($this->curl, $options + $this->options($url));
        $error = $this->exchange();
        $this->unsure = ! in_array($error, self::ANSWERED, true);

        return $error;
    }

    /**
     * Whether the last thing heard on the control connection was that TLS may begin, or nothing where it begins at
     * once.
     */
    private function isHandshakeOfControl(): bool
    {
        $last = $this->lastReply();

        return $this->endpoint->protocol === Protocol::FtpsImplicit
            ? $last === null
            : $last !== null && str_starts_with($last, '234');
    }

    /**
     * @return list<string> with what the sign-in was let in first, the lines the server sent during the last request
     */
    public function replies(): array
    {
        return $this->replies->withWelcome();
    }

    /** Where the sign-in landed, as the server answered to PWD (RFC 959, 4.1.1); "/" where it did not say. */
    public function entryPath(): string
    {
        /** @var mixed $path */
        $path = curl_getinfo($this->curl, CURLINFO_FTP_ENTRY_PATH);

        return is_string($path) && $path !== '' ? $path : '/';
    }

    public function lastReply(): ?string
    {
        return $this->replies->last();
    }

    /** What libcurl counted during the last request, 0 where it did not. */
    public function number(int $info): int
    {
        /** @var mixed $bytes */
        $bytes = curl_getinfo($this->curl, $info);

        return is_int($bytes) ? $bytes : 0;
    }

    /**
     * Lets libcurl work until the request is done.
     *
     * Through a multi handle that is looked at often: while the TLS handshake of a data connection is pending, libcurl
     * 7.88 watches only that socket, and replies on the control connection wait for the next look, up to a second.
     * For the same reason it does not notice there that the server is gone, and none of its time limits counts;
     * so a silence of the server is measured here.
     */
    private function exchange(): int
    {
        $bytes = 0;
        $this->replies->heard = self::clock();
        $patience = max($this->settings->connectSeconds, $this->settings->answerSeconds) + 1;
        curl_multi_add_handle($this->connection, $this->curl);
        try {
            do {
                $status = curl_multi_exec($this->connection, $running);
                $told = curl_multi_info_read($this->connection);
                if ($told !== false) {
                    return self::result($told);
                }
                $moved = $this->number(CURLINFO_SIZE_UPLOAD_T) + $this->number(CURLINFO_SIZE_DOWNLOAD_T);
                if ($moved !== $bytes) {
                    [$bytes, $this->replies->heard] = [$moved, self::clock()];
                } elseif (self::clock() - $this->replies->heard > $patience) {
                    return CURLE_OPERATION_TIMEDOUT;
                }
                curl_multi_select(
                    $this->connection,
                    $this->endpoint->protocol->isEncrypted() ? self::LOOK_SECONDS : 0.25,
                );
            } while ($status === CURLM_OK && $running > 0);
            $told = curl_multi_info_read($this->connection);

            return $told === false ? CURLE_FAILED_INIT : self::result($told);
        } finally {
            curl_multi_remove_handle($this->connection, $this->curl);
        }
    }

    /** @return array<int, mixed> */
    private function options(string $url): array
    {
        $endpoint = $this->endpoint;
        $options = [
            CURLOPT_URL => $url,
            CURLOPT_PROTOCOLS => CURLPROTO_FTP | CURLPROTO_FTPS,
            CURLOPT_USERNAME => $endpoint->login,
            CURLOPT_PASSWORD => $endpoint->password->reveal(),
            CURLOPT_USE_SSL => $endpoint->protocol === Protocol::Ftp ? CURLUSESSL_NONE : CURLUSESSL_ALL,
            CURLOPT_FTPSSLAUTH => CURLFTPAUTH_TLS,
            CURLOPT_FTP_FILEMETHOD => CURLFTPMETHOD_NOCWD,
            // Over IPv4, libcurl takes a data connection that breaks for EPSV not being known, and asks for PASV
            // while the answer to its transfer is still to come; from then on each answer is taken for that to the
            // next command.
            CURLOPT_FTP_USE_EPSV => false,
            CURLOPT_FTP_SKIP_PASV_IP => true,
            CURLOPT_IGNORE_CONTENT_LENGTH => true,
            CURLOPT_SSLVERSION => $this->tls->curlVersions(),
            CURLOPT_SSL_VERIFYPEER => true,
            CURLOPT_SSL_VERIFYHOST => 2,
            CURLOPT_CONNECTTIMEOUT => $this->settings->connectSeconds,
            CURLOPT_FTP_RESPONSE_TIMEOUT => $this->settings->answerSeconds,
            CURLOPT_LOW_SPEED_LIMIT => 1,
            CURLOPT_LOW_SPEED_TIME => $this->settings->answerSeconds,
            CURLOPT_NOSIGNAL => true,
            CURLOPT_PROXY => '',
            CURLOPT_HEADERFUNCTION => $this->replies->listener(),
        ];
        if ($endpoint->address !== null) {
            $options[CURLOPT_RESOLVE] = ["$endpoint->host:$endpoint->port:$endpoint->address"];
        }
        if ($endpoint->active) {
            $options[CURLOPT_FTPPORT] = '-';
        }
        if ($endpoint->authorities !== null) {
            $options[CURLOPT_CAINFO] = $endpoint->authorities;
        }
        if ($endpoint->pin !== null) {
            // A person has accepted exactly this key; who signed it and for which name no longer matters.
            $options = [
                CURLOPT_SSL_VERIFYPEER => false,
                CURLOPT_SSL_VERIFYHOST => 0,
                CURLOPT_PINNEDPUBLICKEY => "sha256//{$endpoint->pin->key}",
            ] + $options;
        }
        if ($this->carryOn !== null) {
            $options[CURLOPT_NOPROGRESS] = false;
            $carryOn = $this->carryOn;
            $options[CURLOPT_XFERINFOFUNCTION] = static fn (
                CurlHandle $curl,
                int $downAll,
                int $down,
                int $upAll,
                int $up,
            ): int => $carryOn($down + $up) ? 0 : 1;
        }

        return $options;
    }

    /** @param  array<mixed>  $told */
    private static function result(array $told): int
    {
        return is_int($told['result'] ?? null) ? $told['result'] : CURLE_FAILED_INIT;
    }

    private static function clock(): float
    {
        return hrtime(true) / 1e9;
    }
}
