<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;

/**
 * Commands and transfers of one login over one FTP connection that is used again.
 *
 * Every command names its path in full (no CWD), so that nothing depends on where the last command left off.
 */
final class FtpSession
{
    public readonly FtpConnection $connection;

    /** Whether the server was told on this connection which facts to list. */
    public bool $factsAsked = false;

    /** Whether bytes are counted as they are on this connection: TYPE I (RFC 959, 3.1.1). */
    private bool $isBinary = false;

    /** @var \WeakReference<FtpLister>|null not held, since it holds this: the connection ends with its last user */
    private ?\WeakReference $lister = null;

    /** @param  (\Closure(int): bool)|null  $carryOn  hears the bytes moved so far in a transfer; false breaks it off */
    public function __construct(private readonly Endpoint $endpoint, ConnectionSettings $settings, ?\Closure $carryOn)
    {
        $this->connection = new FtpConnection($endpoint, $settings, $carryOn);
    }

    /** From here on it tells absent from forbidden, which servers answer alike. */
    public function listedBy(FtpLister $lister): void
    {
        $this->lister = \WeakReference::create($lister);
    }

    /** @throws RemoteFailure */
    private function isListed(RemotePath $path): bool
    {
        return $this->lister?->get()?->stat($path) !== null;
    }

    /** @param  list<string>  $lines */
    public function command(string $what, array $lines, RemotePath $path): void
    {
        $this->request(
            $what,
            $this->url(RemotePath::root(), true),
            [CURLOPT_NOBODY => true, CURLOPT_QUOTE => $lines],
            $path,
        );
    }

    /**
     * The command that has bytes counted and hashed as they are, where it was not given yet (RFC 3659, 4).
     *
     * @return list<string>
     */
    public function binary(): array
    {
        return $this->isBinary ? [] : ['*TYPE I'];
    }

    /** A command or a transfer before has set it. */
    public function isBinaryNow(): void
    {
        $this->isBinary = true;
    }

    public function size(RemotePath $file): ?int
    {
        $this->command("looking at $file", [...$this->binary(), "*SIZE {$this->real($file)}"], $file->parent());
        $this->isBinary = true;

        return preg_match('/\A213 (\d{1,18})\z/', (string) $this->connection->lastReply(), $match) === 1
            ? (int) $match[1]
            : null;
    }

    /**
     * Has libcurl take note that it is where the sign-in landed, at no cost but after a failure.
     *
     * Else it goes back there by itself in the next request, after the commands given to it and before the listing:
     * another directory than the one meant would be listed.
     */
    public function lead(): void
    {
        $this->request(
            'going to where the sign-in landed',
            "{$this->connection->base}/",
            [CURLOPT_NOBODY => true],
            RemotePath::root(),
        );
    }

    /**
     * What needs no data connection.
     *
     * @param  array<int, mixed>  $options
     * @param  RemotePath  $path  decides between absent and forbidden when the server says 550
     *
     * @throws RemoteFailure
     */
    public function request(string $what, string $url, array $options, RemotePath $path): void
    {
        $this->settle($this->attempt($what, $url, $options, $path, false), false);
    }

    /**
     * Over a data connection of its own, and once more where the server refused that one.
     *
     * @param  array<int, mixed>  $options
     * @param  (\Closure(): bool)|null  $rewind  makes ready for the same request once more; false where that cannot be
     *
     * @throws RemoteFailure
     */
    public function transfer(
        string $what,
        string $url,
        array $options,
        RemotePath $path,
        ?\Closure $rewind = null,
    ): void {
        $failure = $this->attempt($what, $url, $options, $path, true);
        if (
            $failure?->reason === FailureReason::DataRefused
            && $this->connection->givesEachTransferItsOwn()
            && ($rewind === null || $rewind())
        ) {
            $failure = $this->attempt($what, $url, $options, $path, true);
        }
        $this->settle($failure, true);
    }

    /** @param  array<int, mixed>  $options */
    private function attempt(
        string $what,
        string $url,
        array $options,
        RemotePath $path,
        bool $transfers,
    ): ?RemoteFailure {
        $error = $this->connection->request($url, $options, $transfers);

        return $error === CURLE_OK ? null : $this->failure($what, $error, $path);
    }

    /** What is known of the connection after it; another one knows nothing of what was said on the one before. */
    private function settle(?RemoteFailure $failure, bool $transferred): void
    {
        $isNew = $this->connection->number(CURLINFO_NUM_CONNECTS) > 0;
        $this->factsAsked = $this->factsAsked && ! $isNew;
        $this->isBinary = $this->isBinary && ! $isNew && ! $transferred;
        if ($failure !== null) {
            throw $failure;
        }
    }

    /**
     * The bytes of a path on the server.
     *
     * @throws RemoteFailure for a name that no command can carry
     */
    public function real(RemotePath $path): string
    {
        $start = $this->endpoint->start;
        $whole = $start === null || $start->depth() === 0
            ? $path->toString()
            : $start->toString().($path->depth() === 0 ? '' : $path->toString());
        $bytes = WireName::toWire($whole);
        if (! self::canName($bytes)) {
            throw RemoteFailure::while(
                "naming $path",
                FailureReason::NotUnderstood,
                'FTP has no way to name a file with a line end or another control character in its name',
            );
        }

        return $bytes;
    }

    /** A line end would be another command; libcurl takes none of the other control characters either. */
    public static function canName(string $bytes): bool
    {
        return preg_match('/[\x00-\x1f\x7f]/', $bytes) !== 1;
    }

    public function url(RemotePath $path, bool $directory = false): string
    {
        $segments = array_map(rawurlencode(...), array_slice(explode('/', $this->real($path)), 1));
        $encoded = '%2F'.implode('/', $segments).($directory && $this->real($path) !== '/' ? '/' : '');

        return "{$this->connection->base}/$encoded";
    }

    private function failure(string $what, int $error, RemotePath $path): RemoteFailure
    {
        $said = $this->connection->lastReply();
        $reason = CurlFailure::reason($error, $said);
        if ($error === CURLE_SSL_CONNECT_ERROR && $reason === FailureReason::DataRefused) {
            // The handshake for the data begins before the server has answered: a refusal may be what cut it off.
            $reason = $this->isAbsent($path) ? FailureReason::NotFound : $reason;
        } elseif (
            $reason === FailureReason::NotFound
            || ($reason === FailureReason::Forbidden && str_starts_with((string) $said, '553'))
        ) {
            $reason = $this->absentOrForbidden($path, $reason);
        }

        return RemoteFailure::while(
            $what,
            $reason,
            $said !== null && preg_match('/\A[45]\d\d/', $said) === 1 ? $said : null,
        );
    }

    private function isAbsent(RemotePath $path): bool
    {
        try {
            return $path->depth() > 0 && ! $this->isListed($path);
        } catch (RemoteFailure) {
            return false; // Then it is not known, and what was seen first is told.
        }
    }

    /** A 550 may mean either, and some say 553 for a directory that is not there; the parent's listing tells. */
    private function absentOrForbidden(RemotePath $path, FailureReason $said): FailureReason
    {
        if ($path->depth() === 0) {
            // "/" is always there, unless it stands for a directory further down.
            return $this->real($path) === '/' ? FailureReason::Forbidden : $said;
        }
        try {
            return $this->isListed($path) ? FailureReason::Forbidden : FailureReason::NotFound;
        } catch (RemoteFailure $failure) {
            return $failure->reason;
        }
    }
}
