<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Account\Endpoint;
use Cellarium\Core\Path\RemotePath;
use CurlHandle;

/**
 * FTP and FTP over TLS on libcurl, over one connection that is used again.
 *
 * Every command names its path in full (no CWD), so that nothing depends on where the last command left off.
 */
final class FtpRemoteDirectory implements RemoteDirectory, SetsModes, TriesPaths
{
    private readonly FtpConnection $connection;

    /** Whether the server was told on this connection which facts to list. */
    private bool $factsAsked = false;

    /** Whether the server knows MLSD (RFC 3659 section 7); found out by asking it. */
    private bool $machineLists = true;

    /** The directory a sign-in lands in, as the server calls it. */
    private ?string $landing = null;

    /** Whether the server, without MLSD, lists hidden files without being asked to. */
    private bool $hidesNothing = false;

    /** @param  (\Closure(int): bool)|null  $carryOn hears the bytes moved so far in a transfer; false breaks it off */
    public function __construct(
        private readonly Endpoint $endpoint,
        ConnectionSettings $settings = new ConnectionSettings,
        ?\Closure $carryOn = null,
    ) {
        $this->connection = new FtpConnection($endpoint, $settings, $carryOn);
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

    public function landing(): array
    {
        $entries = $this->listHere($this->landing === null ? [] : ["CWD $this->landing"], 'listing where the sign-in lands', RemotePath::root());
        $this->landing ??= $this->connection->entryPath();

        return $entries;
    }

    public function listAt(string $raw): array
    {
        if (preg_match('/[\x00-\x1f\x7f]/', $raw) === 1) {
            throw new \InvalidArgumentException('a command is one line');
        }
        $this->landing ?? $this->landing();
        // Asked first whether it may go there: libcurl hangs up after a refused command that it was told to insist on.
        $this->command("listing $raw", ["CWD $this->landing", "*CWD $raw"], RemotePath::root());
        $said = (string) $this->connection->lastReply();
        if (! str_starts_with($said, '2')) {
            throw RemoteFailure::while("listing $raw", str_starts_with($said, '4') ? FailureReason::TimedOut : FailureReason::NotFound, $said);
        }

        return $this->listHere(["CWD $this->landing", "CWD $raw"], "listing $raw", RemotePath::root());
    }

    public function sees(string $raw): bool
    {
        if (preg_match('/[\x00-\x1f\x7f]/', $raw) === 1) {
            throw new \InvalidArgumentException('a command is one line');
        }
        $this->landing ?? $this->landing();
        $this->command("looking for $raw", ["CWD $this->landing", '*TYPE I', "*SIZE $raw"], RemotePath::root());

        return preg_match('/\A213 \d/', (string) $this->connection->lastReply()) === 1;
    }

    public function answers(): array
    {
        return $this->connection->replies();
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
        $url = "{$this->connection->base}/";
        // Hidden files have to be asked for; a server that takes "-a" for a name is asked without.
        foreach ($this->machineLists ? ['MLSD'] : ($this->hidesNothing ? ['LIST'] : ['LIST -a', 'LIST']) as $command) {
            $sink = fopen('php://temp', 'w+b');
            assert($sink !== false);
            try {
                $this->request($what, $url, [CURLOPT_QUOTE => $before, CURLOPT_CUSTOMREQUEST => $command, CURLOPT_FILE => $sink], $path);
            } catch (RemoteFailure $failure) {
                if ($command === 'MLSD' && preg_match('/\A50[024]\b/', (string) $failure->serverSaid) === 1) {
                    $this->machineLists = false;

                    return $this->listHere($before, $what, $path);
                }
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

        return $this->connection->number(CURLINFO_SIZE_DOWNLOAD_T);
    }

    public function write(RemotePath $file, $source, int $size): ?int
    {
        $this->request("writing $file", $this->url($file), [
            CURLOPT_UPLOAD => true,
            CURLOPT_READFUNCTION => static fn (CurlHandle $curl, mixed $none, int $length): string => (string) fread($source, max(1, $length)),
            CURLOPT_INFILESIZE => $size,
            CURLOPT_POSTQUOTE => ["*SIZE {$this->real($file)}"],
        ], $file->parent());
        if ($this->connection->number(CURLINFO_SIZE_UPLOAD_T) !== $size) {
            throw RemoteFailure::while("writing $file", FailureReason::LocalFile);
        }
        $last = $this->connection->lastReply();

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
        $error = $this->connection->request($url, $options);
        if ($this->connection->number(CURLINFO_NUM_CONNECTS) > 0) {
            $this->factsAsked = false;
        }
        if ($error !== CURLE_OK) {
            throw $this->failure($what, $error, $path);
        }
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

        return "{$this->connection->base}/$encoded";
    }

    private function failure(string $what, int $error, RemotePath $path): RemoteFailure
    {
        $said = $this->connection->lastReply();
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
