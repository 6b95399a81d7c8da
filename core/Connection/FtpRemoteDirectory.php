<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Account\Endpoint;
use Cellarium\Core\Account\Protocol;
use Cellarium\Core\Path\RemotePath;
use CurlHandle;
use CurlMultiHandle;

/**
 * FTP and FTP over TLS on libcurl: one handle, so one connection that is used again.
 *
 * Every command names its path in full (no CWD), so that nothing depends on where the last command left off.
 */
final class FtpRemoteDirectory implements Climbs, RemoteDirectory, SetsModes
{
    /** How long a look at the sockets may wait, in seconds; see exchange(). */
    private const LOOK_SECONDS = 0.01;

    private readonly CurlHandle $curl;

    private readonly CurlMultiHandle $connection;

    /** @var list<string> the lines the server sent during the last request */
    private array $replies = [];

    /** When the server last said or took something, seconds on the system's clock that only goes forward. */
    private float $heard = 0.0;

    /** Whether the server was told on this connection which facts to list. */
    private bool $factsAsked = false;

    /** Whether the server knows MLSD (RFC 3659 section 7); found out by asking it. */
    private bool $machineLists = true;

    /** Whether the server, without MLSD, lists hidden files without being asked to. */
    private bool $hidesNothing = false;

    /** @param  (\Closure(int): bool)|null  $carryOn hears the bytes moved so far in a transfer; false breaks it off */
    public function __construct(
        private readonly Endpoint $endpoint,
        private readonly ConnectionSettings $settings = new ConnectionSettings,
        private readonly ?\Closure $carryOn = null,
    ) {
        $this->curl = curl_init();
        $this->connection = curl_multi_init();
    }

    public function list(RemotePath $directory): array
    {
        $what = "listing $directory";
        if (! $this->machineLists) {
            return $this->customList($directory, $what);
        }
        $sink = fopen('php://temp', 'w+b');
        assert($sink !== false);
        $options = [CURLOPT_CUSTOMREQUEST => 'MLSD', CURLOPT_FILE => $sink];
        if (! $this->factsAsked) {
            // Some servers leave the mode out unless it is asked for (RFC 3659 section 7.9).
            $options[CURLOPT_QUOTE] = ['*OPTS MLST type;size;modify;unix.mode;'];
        }
        try {
            $this->request($what, $this->url($directory, true), $options, $directory);
        } catch (RemoteFailure $failure) {
            if (preg_match('/\A50[024]\b/', (string) $failure->serverSaid) !== 1) {
                throw $failure;
            }
            $this->machineLists = false;

            return $this->customList($directory, $what);
        }
        $this->factsAsked = true;
        rewind($sink);

        return MachineListing::parse((string) stream_get_contents($sink), $what);
    }

    public function listAbove(): array
    {
        return $this->listHere(['CWD '.$this->real(RemotePath::root()), '*CDUP', '*CWD ../..'], 'listing the directory above', RemotePath::root());
    }

    /**
     * Goes there first: without that some servers answer for what is not there with an empty listing, and for a file
     * with a line about it.
     *
     * @return list<RemoteEntry>
     */
    private function customList(RemotePath $directory, string $what): array
    {
        return $this->listHere(['CWD '.$this->real($directory)], $what, $directory);
    }

    /**
     * @param  list<string>  $before  commands that lead to the directory
     * @return list<RemoteEntry>
     */
    private function listHere(array $before, string $what, RemotePath $path): array
    {
        $url = "{$this->endpoint->protocol->scheme()}://{$this->endpoint->host}:{$this->endpoint->port}/";
        // Hidden files have to be asked for; a server that takes "-a" for a name is asked without.
        foreach ($this->machineLists ? ['MLSD'] : ($this->hidesNothing ? ['LIST'] : ['LIST -a', 'LIST']) as $command) {
            $sink = fopen('php://temp', 'w+b');
            assert($sink !== false);
            try {
                $this->request($what, $url, [CURLOPT_QUOTE => $before, CURLOPT_CUSTOMREQUEST => $command, CURLOPT_FILE => $sink], $path);
            } catch (RemoteFailure $failure) {
                if ($command !== 'LIST -a' || $failure->reason->isTransient() || preg_match('/\A5[05]\d\b/', (string) $failure->serverSaid) !== 1) {
                    throw $failure;
                }

                continue;
            }
            rewind($sink);
            $text = (string) stream_get_contents($sink);
            $this->hidesNothing = $command === 'LIST';

            return $command === 'MLSD' ? MachineListing::parse($text, $what) : ListListing::parse($text, $what, time());
        }
        throw RemoteFailure::while($what, FailureReason::NotUnderstood);
    }

    public function stat(RemotePath $path): ?RemoteEntry
    {
        if ($path->depth() === 0) {
            $this->list($path);

            return new RemoteEntry('', EntryKind::Directory);
        }
        // By its parent's listing: MLST answers 550 for what is absent and for what is forbidden alike.
        foreach ($this->list($path->parent()) as $entry) {
            if ($entry->name === $path->name()) {
                return $entry;
            }
        }

        return null;
    }

    public function read(RemotePath $file, $sink): int
    {
        $this->request("reading $file", $this->url($file), [CURLOPT_FILE => $sink], $file);

        return $this->bytes(CURLINFO_SIZE_DOWNLOAD_T);
    }

    public function write(RemotePath $file, $source, int $size): ?int
    {
        $this->request("writing $file", $this->url($file), [
            CURLOPT_UPLOAD => true,
            CURLOPT_READFUNCTION => static fn (CurlHandle $curl, mixed $none, int $length): string => (string) fread($source, max(1, $length)),
            CURLOPT_INFILESIZE => $size,
            CURLOPT_POSTQUOTE => ["*SIZE {$this->real($file)}"],
        ], $file->parent());
        if ($this->bytes(CURLINFO_SIZE_UPLOAD_T) !== $size) {
            throw RemoteFailure::while("writing $file", FailureReason::LocalFile);
        }
        $last = $this->lastReply();

        return $last !== null && preg_match('/\A213 (\d{1,18})\z/', $last, $match) === 1 ? (int) $match[1] : null;
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        $this->command("renaming $from to $to", ["RNFR {$this->real($from)}", "RNTO {$this->real($to)}"], $from);
    }

    public function remove(RemotePath $file): void
    {
        $this->command("removing $file", ["DELE {$this->real($file)}"], $file);
    }

    public function makeDirectory(RemotePath $directory): void
    {
        try {
            $this->command("making $directory", ["MKD {$this->real($directory)}"], $directory->parent());
        } catch (RemoteFailure $failure) {
            if (! $failure->reason->isTransient() && $this->stat($directory)?->kind === EntryKind::Directory) {
                return;
            }
            throw $failure;
        }
    }

    public function removeDirectory(RemotePath $directory): void
    {
        $this->command("removing $directory", ["RMD {$this->real($directory)}"], $directory);
    }

    public function setMode(RemotePath $path, int $mode): void
    {
        $this->command("setting the mode of $path", [sprintf('SITE CHMOD %03o %s', $mode, $this->real($path))], $path);
    }

    /** @param  list<string>  $lines */
    private function command(string $what, array $lines, RemotePath $path): void
    {
        $this->request($what, $this->url(RemotePath::root(), true), [CURLOPT_NOBODY => true, CURLOPT_QUOTE => $lines], $path);
    }

    /**
     * @param  array<int, mixed>  $options
     * @param  RemotePath  $path  decides between absent and forbidden when the server says 550
     */
    private function request(string $what, string $url, array $options, RemotePath $path): void
    {
        $this->replies = [];
        curl_reset($this->curl);
        curl_setopt_array($this->curl, $options + $this->options($url));
        $error = $this->exchange();
        if ($this->bytes(CURLINFO_NUM_CONNECTS) > 0) {
            $this->factsAsked = false;
        }
        if ($error !== CURLE_OK) {
            throw $this->failure($what, $error, $path);
        }
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
        $this->heard = self::clock();
        $patience = max($this->settings->connectSeconds, $this->settings->answerSeconds) + 1;
        curl_multi_add_handle($this->connection, $this->curl);
        try {
            do {
                $status = curl_multi_exec($this->connection, $running);
                $told = curl_multi_info_read($this->connection);
                if ($told !== false) {
                    return self::result($told);
                }
                $moved = $this->bytes(CURLINFO_SIZE_UPLOAD_T) + $this->bytes(CURLINFO_SIZE_DOWNLOAD_T);
                if ($moved !== $bytes) {
                    [$bytes, $this->heard] = [$moved, self::clock()];
                } elseif (self::clock() - $this->heard > $patience) {
                    return CURLE_OPERATION_TIMEDOUT;
                }
                curl_multi_select($this->connection, $this->endpoint->protocol->isEncrypted() ? self::LOOK_SECONDS : 0.25);
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
            CURLOPT_FTP_SKIP_PASV_IP => true,
            CURLOPT_IGNORE_CONTENT_LENGTH => true,
            CURLOPT_SSL_VERIFYPEER => true,
            CURLOPT_SSL_VERIFYHOST => 2,
            CURLOPT_CONNECTTIMEOUT => $this->settings->connectSeconds,
            CURLOPT_FTP_RESPONSE_TIMEOUT => $this->settings->answerSeconds,
            CURLOPT_LOW_SPEED_LIMIT => 1,
            CURLOPT_LOW_SPEED_TIME => $this->settings->answerSeconds,
            CURLOPT_NOSIGNAL => true,
            CURLOPT_PROXY => '',
            CURLOPT_HEADERFUNCTION => function (CurlHandle $curl, string $line): int {
                $this->replies[] = rtrim($line, "\r\n");
                $this->heard = self::clock();

                return strlen($line);
            },
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
            $options = [CURLOPT_SSL_VERIFYPEER => false, CURLOPT_SSL_VERIFYHOST => 0, CURLOPT_PINNEDPUBLICKEY => "sha256//{$endpoint->pin->key}"] + $options;
        }
        if ($this->carryOn !== null) {
            $options[CURLOPT_NOPROGRESS] = false;
            $options[CURLOPT_XFERINFOFUNCTION] = fn (CurlHandle $curl, int $downAll, int $down, int $upAll, int $up): int => ($this->carryOn)($down + $up) ? 0 : 1;
        }

        return $options;
    }

    private function real(RemotePath $path): string
    {
        $start = $this->endpoint->start;

        return $start === null || $start->depth() === 0 ? $path->toString() : $start->toString().($path->depth() === 0 ? '' : $path->toString());
    }

    private function url(RemotePath $path, bool $directory = false): string
    {
        $segments = array_map(rawurlencode(...), array_slice(explode('/', $this->real($path)), 1));
        $encoded = '%2F'.implode('/', $segments).($directory && $this->real($path) !== '/' ? '/' : '');

        return "{$this->endpoint->protocol->scheme()}://{$this->endpoint->host}:{$this->endpoint->port}/$encoded";
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

    private function lastReply(): ?string
    {
        return $this->replies === [] ? null : $this->replies[count($this->replies) - 1];
    }

    private function bytes(int $info): int
    {
        /** @var mixed $bytes */
        $bytes = curl_getinfo($this->curl, $info);

        return is_int($bytes) ? $bytes : 0;
    }

    private function failure(string $what, int $error, RemotePath $path): RemoteFailure
    {
        $said = $this->lastReply();
        $reason = CurlFailure::reason($error, $said);
        if ($reason === FailureReason::NotFound && $path->depth() > 0) {
            $reason = $this->absentOrForbidden($path);
        }

        return RemoteFailure::while($what, $reason, $said !== null && preg_match('/\A[45]\d\d/', $said) === 1 ? $said : null);
    }

    /** A 550 may mean either; the parent's listing tells. */
    private function absentOrForbidden(RemotePath $path): FailureReason
    {
        try {
            return $this->stat($path) === null ? FailureReason::NotFound : FailureReason::Forbidden;
        } catch (RemoteFailure $failure) {
            return $failure->reason;
        }
    }
}
