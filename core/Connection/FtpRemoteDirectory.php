<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;
use CurlHandle;

/**
 * FTP and FTP over TLS on libcurl, over one connection that is used again.
 *
 * Every command names its path in full (no CWD), so that nothing depends on where the last command left off.
 */
final class FtpRemoteDirectory implements
    ComputesHashes,
    CopiesFiles,
    LooksAgain,
    RemoteDirectory,
    RenamesTogether,
    ResumesSending,
    SetsModes,
    TriesPaths
{
    /** So much is taken from the network at once, in bytes. */
    private const BUFFER = 1 << 19;

    private readonly FtpConnection $connection;

    /** Whether the server was told on this connection which facts to list. */
    private bool $factsAsked = false;

    /** Whether bytes are counted as they are on this connection: TYPE I (RFC 959, 3.1.1). */
    private bool $isBinary = false;

    /** Whether the server knows MLSD (RFC 3659 section 7); found out by asking it. */
    private bool $machineLists = true;

    /** Whether the server copies its files (SITE CPFR and CPTO); found out by asking it to. */
    private bool $copies = true;

    /** How the server computes hashes, once it was asked; null where it does not. */
    private ?HashCommand $hashes = null;

    private bool $hashesAsked = false;

    /** The directory that is being listed, where its path is known. */
    private ?RemotePath $listing = null;

    /** The directory a sign-in lands in, as the server calls it. */
    private ?string $landing = null;

    /** Whether the server, without MLSD, lists hidden files without being asked to. */
    private bool $hidesNothing = false;

    /** @param  (\Closure(int): bool)|null  $carryOn hears the bytes moved so far in a transfer; false breaks it off */
    public function __construct(
        private readonly Endpoint $endpoint,
        private readonly ConnectionSettings $settings = new ConnectionSettings,
        ?\Closure $carryOn = null,
    ) {
        $this->connection = new FtpConnection($endpoint, $settings, $carryOn);
    }

    public function list(RemotePath $directory): array
    {
        $this->listing = $directory;
        try {
            return $this->listed($directory);
        } finally {
            $this->listing = null;
        }
    }

    /**
     * @return list<RemoteEntry>
     *
     * @throws RemoteFailure
     */
    private function confirmed(ListingReader $reader): array
    {
        $plain = array_filter(
            $reader->doubted(),
            static fn (RemoteEntry $entry): bool => self::canName(WireName::toWire($entry->name)),
        );
        foreach ($plain as $entry) {
            if ($this->listing === null || $this->isThere($this->listing->child($entry->name))) {
                return $reader->entries(); // What followed was no part of the name, and nothing of it is sure.
            }
        }

        return $reader->entriesWithNamesThatGoOn();
    }

    private function isThere(RemotePath $path): bool
    {
        if ($this->size($path) !== null) {
            return true;
        }
        $this->command("looking at $path", ["*CWD {$this->real($path)}"], $path->parent());

        return str_starts_with((string) $this->connection->lastReply(), '2');
    }

    /** @return list<RemoteEntry> */
    private function listed(RemotePath $directory): array
    {
        $what = "listing $directory";
        if (! $this->machineLists) {
            return $this->customList($directory, $what);
        }
        $options = [CURLOPT_CUSTOMREQUEST => 'MLSD'];
        if (! $this->factsAsked) {
            // Some servers leave the mode out unless it is asked for (RFC 3659 section 7.9).
            $options[CURLOPT_QUOTE] = ['*OPTS MLST type;size;modify;unix.mode;'];
        }
        try {
            $entries = $this->listing(
                new MachineListing($what),
                $what,
                $this->url($directory, true),
                $options,
                $directory,
            );
        } catch (RemoteFailure $failure) {
            if (preg_match('/\A50[024]\b/', (string) $failure->serverSaid) !== 1) {
                throw $failure;
            }
            $this->machineLists = false;

            return $this->customList($directory, $what);
        }
        $this->factsAsked = true;

        return $entries;
    }

    /** What is known by now about speaking TLS with this server. */
    public function tls(): TlsUse
    {
        return $this->connection->tls();
    }

    public function landing(): array
    {
        $entries = $this->listHere(
            $this->landing === null ? [] : ["CWD $this->landing"],
            'listing where the sign-in lands',
            RemotePath::root(),
        );
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
            throw RemoteFailure::while(
                "listing $raw",
                str_starts_with($said, '4') ? FailureReason::TimedOut : FailureReason::NotFound,
                $said,
            );
        }

        return $this->listHere(["CWD $this->landing", "CWD $raw"], "listing $raw", RemotePath::root());
    }

    public function namesOtherwise(RemotePath $directory, array $names): array
    {
        $this->connection->renew();
        $there = [];
        foreach ($names as $name) {
            $this->command(
                "looking for $name in $directory",
                ['*TYPE I', "*SIZE {$this->real($directory->child($name))}"],
                RemotePath::root(),
            );
            if (preg_match('/\A213 \d/', (string) $this->connection->lastReply()) === 1) {
                $there[] = $name;
            }
        }
        // LIST where the first look was by MLSD, NLST where it was by LIST.
        $what = "listing $directory by another command";
        $commands = $this->machineLists ? ['LIST -a', 'LIST'] : ['NLST -a', 'NLST'];
        try {
            $listed = $this->listBy(
                $commands,
                ["CWD {$this->real($directory)}"],
                $what,
                $directory,
            );
        } catch (RemoteFailure $failure) {
            $listed = $failure->reason->isTransient() ? throw $failure : [];
        }

        return array_values(
            array_unique([...$there, ...array_map(static fn (RemoteEntry $entry): string => $entry->name, $listed)]),
        );
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
        return $this->listHere(["CWD {$this->real($directory)}"], $what, $directory);
    }

    /**
     * @param  list<string>  $before  commands that lead to the directory
     * @return list<RemoteEntry>
     */
    private function listHere(array $before, string $what, RemotePath $path): array
    {
        // Hidden files have to be asked for; a server that takes "-a" for a name is asked without.
        return $this->listBy(
            match (true) {
                $this->machineLists => ['MLSD'],
                $this->hidesNothing => ['LIST'],
                default => ['LIST -a', 'LIST'],
            },
            $before,
            $what,
            $path,
        );
    }

    /**
     * @param  list<string>  $commands  the first that the server knows counts
     * @param  list<string>  $before  commands that lead to the directory
     * @return list<RemoteEntry>
     */
    private function listBy(array $commands, array $before, string $what, RemotePath $path): array
    {
        $url = "{$this->connection->base}/";
        foreach ($commands as $command) {
            $lines = match (substr($command, 0, 4)) {
                'MLSD' => new MachineListing($what),
                'NLST' => new NameListing,
                default => new ListListing($what, time()),
            };
            try {
                $this->lead();
                $entries = $this->listing(
                    $lines,
                    $what,
                    $url,
                    [CURLOPT_QUOTE => $before, CURLOPT_CUSTOMREQUEST => $command],
                    $path,
                );
            } catch (RemoteFailure $failure) {
                if ($command === 'MLSD' && preg_match('/\A50[024]\b/', (string) $failure->serverSaid) === 1) {
                    $this->machineLists = false;

                    return $this->listHere($before, $what, $path);
                }
                if (
                    ! str_ends_with($command, ' -a')
                    || $failure->reason->isTransient()
                    || preg_match('/\A5[05]\d\b/', (string) $failure->serverSaid) !== 1
                ) {
                    throw $failure;
                }

                continue;
            }
            if (str_starts_with($command, 'LIST') && ! $this->machineLists) {
                $this->hidesNothing = $command === 'LIST';
            }

            return $entries;
        }
        throw RemoteFailure::while($what, FailureReason::NotUnderstood);
    }

    /**
     * Has libcurl take note that it is where the sign-in landed, at no cost but after a failure.
     *
     * Else it goes back there by itself in the next request, after the commands given to it and before the listing:
     * another directory than the one meant would be listed.
     */
    private function lead(): void
    {
        $this->request(
            'going to where the sign-in landed',
            "{$this->connection->base}/",
            [CURLOPT_NOBODY => true],
            RemotePath::root(),
        );
    }

    /**
     * @param  array<int, mixed>  $options
     * @return list<RemoteEntry>
     */
    private function listing(ListingLines $lines, string $what, string $url, array $options, RemotePath $path): array
    {
        $reader = new ListingReader($lines, $what, $this->settings);
        $options += $this->settings->deadline($this->settings->mostListingBytes);
        // Something else than the length taken makes libcurl stop.
        $options[CURLOPT_WRITEFUNCTION] = static fn (CurlHandle $curl, string $chunk): int => $reader->take($chunk)
            ? strlen($chunk)
            : -1;
        try {
            $this->request($what, $url, $options, $path, true);
        } catch (RemoteFailure $failure) {
            throw $reader->gaveUp() ? $this->whyGivenUp($reader, $failure) : $failure;
        }

        $entries = $reader->doubted() === [] ? $reader->entries() : $this->confirmed($reader);

        return array_map(
            static fn (RemoteEntry $entry): RemoteEntry => self::canName(WireName::toWire($entry->name))
                ? $entry
                : $entry->notNameable(),
            $entries,
        );
    }

    private function whyGivenUp(ListingReader $reader, RemoteFailure $failure): RemoteFailure
    {
        try {
            $reader->entries();
        } catch (RemoteFailure $ours) {
            return $ours;
        }

        return $failure;
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

    public function read(RemotePath $file, $sink, ?int $most = null): int
    {
        $taken = 0;
        $take = static function (CurlHandle $curl, string $chunk) use ($sink, $most, &$taken): int {
            $taken += strlen($chunk);

            return $most !== null && $taken > $most ? -1 : (int) @fwrite($sink, $chunk);
        };
        try {
            $this->request(
                "reading $file",
                $this->url($file),
                [CURLOPT_BUFFERSIZE => self::BUFFER] + ($most === null && self::isPlainFile($sink)
                    ? [CURLOPT_FILE => $sink]
                    : [CURLOPT_WRITEFUNCTION => $take]) + $this->settings->deadline($most),
                $file,
                true,
            );
        } catch (RemoteFailure $failure) {
            throw $most !== null && $taken > $most ? self::tooMuch($file, $most) : $failure;
        }

        $this->isBinary = true;

        return $this->connection->number(CURLINFO_SIZE_DOWNLOAD_T);
    }

    private static function tooMuch(RemotePath $file, int $most): RemoteFailure
    {
        return RemoteFailure::while(
            "reading $file",
            FailureReason::Incomplete,
            "$most bytes came, and it went on",
        );
    }

    public function size(RemotePath $file): ?int
    {
        // Of text, servers count the bytes otherwise (RFC 3659, 4); after a transfer that type is set already.
        $type = $this->isBinary ? [] : ['*TYPE I'];
        $this->command("looking at $file", [...$type, "*SIZE {$this->real($file)}"], $file->parent());
        $this->isBinary = true;

        return preg_match('/\A213 (\d{1,18})\z/', (string) $this->connection->lastReply(), $match) === 1
            ? (int) $match[1]
            : null;
    }

    public function hash(RemotePath $file): ?ServerHash
    {
        if (! $this->hashesAsked) {
            $this->command('asking what the server can do', ['*FEAT'], RemotePath::root());
            $this->hashes = HashCommand::offered($this->connection->replies());
            $this->hashesAsked = true;
        }
        $hashes = $this->hashes;
        if ($hashes === null) {
            return null;
        }
        // Of text, servers count and hash the bytes otherwise.
        $type = $this->isBinary ? [] : ['*TYPE I'];
        $this->command(
            "asking for the hash of $file",
            [...$type, ...$hashes->lines($this->real($file))],
            $file->parent(),
        );
        $this->isBinary = true;

        return $hashes->read((string) $this->connection->lastReply());
    }

    public function write(RemotePath $file, $source, int $size): void
    {
        $this->store($file, $source, $size, []);
    }

    public function writeFrom(RemotePath $file, $source, int $from, int $size): bool
    {
        try {
            $this->store(
                $file,
                $source,
                $size - $from,
                // Right before STOR, since the server forgets it at any other command (RFC 3659, 5.3).
                [CURLOPT_PREQUOTE => ["REST $from"]],
            );
        } catch (RemoteFailure $failure) {
            // Over TLS a refusal is seen as a handshake for the data that does not come about. What else is wrong shows
            // when the whole file is sent.
            $away = [FailureReason::Disconnected, FailureReason::TimedOut, FailureReason::LocalFile];

            return in_array($failure->reason, $away, true) ? throw $failure : false;
        }

        return true;
    }

    /**
     * @param  resource  $source
     * @param  int  $size  bytes that it gives
     * @param  array<int, mixed>  $more  options of libcurl
     */
    private function store(RemotePath $file, $source, int $size, array $more): void
    {
        $options = $more + [
            CURLOPT_UPLOAD => true,
            CURLOPT_UPLOAD_BUFFERSIZE => self::BUFFER,
            CURLOPT_INFILESIZE => $size,
        ] + (self::isPlainFile($source)
            ? [CURLOPT_INFILE => $source]
            : [CURLOPT_READFUNCTION => static fn (CurlHandle $curl, mixed $none, int $length): string => (string) fread(
                $source,
                max(1, $length),
            )]);
        $start = ftell($source);
        // With TLS 1.3 bytes are on their way before the server refuses the connection they go through.
        $rewind = static fn (): bool => $start !== false && fseek($source, $start) === 0;
        try {
            $this->request("writing $file", $this->url($file), $options, $file->parent(), true, $rewind);
        } catch (RemoteFailure $failure) {
            $failure->reason === FailureReason::DataRefused && $size > 0 && $this->removeEmpty($file);
            throw $failure;
        }
        if ($this->connection->number(CURLINFO_SIZE_UPLOAD_T) !== $size) {
            throw RemoteFailure::while("writing $file", FailureReason::LocalFile);
        }
        $this->isBinary = true;
    }

    /** Whether libcurl can read and write it by itself, which is quicker than being handed each piece. */
    private static function isPlainFile(mixed $stream): bool
    {
        return is_resource($stream) && stream_get_meta_data($stream)['wrapper_type'] === 'plainfile';
    }

    /**
     * Servers make the file before the connection for its bytes stands, and leave it there empty when that is refused.
     */
    private function removeEmpty(RemotePath $file): void
    {
        try {
            $this->size($file) === 0 && $this->remove($file);
        } catch (RemoteFailure) {
            // What is told is why the file could not be written; its name is one of ours and found again by it.
        }
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        $this->command("renaming $from to $to", ["RNFR {$this->real($from)}", "RNTO {$this->real($to)}"], $from);
    }

    public function renameTogether(array $renames): array
    {
        $this->lead();
        $lines = [];
        foreach ($renames as [$from, $to]) {
            $lines[] = "RNFR {$this->real($from)}";
            $lines[] = "RNTO {$this->real($to)}";
        }
        // libcurl waits for one answer to each command. So all go as one; what follows it only reads the other answers,
        // and has its own still to come, which is why the connection is not used again.
        try {
            $this->command(
                "renaming {$renames[0][0]} and what goes with it",
                ['*'.implode("\r\n", $lines), ...array_fill(0, count($lines) - 1, '*NOOP')],
                RemotePath::root(),
            );
            $replies = $this->connection->replies();
        } finally {
            $this->connection->renew();
        }

        return FtpReplies::ofRenames($replies, count($renames));
    }

    public function copy(RemotePath $from, RemotePath $to): bool
    {
        // What follows SITE is taken apart at blanks and quotes by the one server that knows this, and put together
        // otherwise: "a  b" then means "a b", which may be another file.
        $isPlain = preg_match('/[\s"\'\\\\]/', $this->real($from).$this->real($to)) !== 1;
        if (! $this->copies || ! $isPlain) {
            return false;
        }
        try {
            $this->command(
                "copying $from to $to",
                ["SITE CPFR {$this->real($from)}", "SITE CPTO {$this->real($to)}"],
                $from,
            );
        } catch (RemoteFailure $failure) {
            if (preg_match('/\A50[0-4]\b/', (string) $failure->serverSaid) !== 1) {
                throw $failure;
            }

            return $this->copies = false;
        }

        return true;
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
        if (str_contains($this->real($path), '"')) {
            // What follows SITE is taken apart at them by one server, which then means another file.
            throw RemoteFailure::while(
                "setting the mode of $path, whose quotation marks some servers would take for the name of another file",
                FailureReason::Forbidden,
            );
        }
        $this->command("setting the mode of $path", [sprintf('SITE CHMOD %03o %s', $mode, $this->real($path))], $path);
    }

    /** @param  list<string>  $lines */
    private function command(string $what, array $lines, RemotePath $path): void
    {
        $this->request(
            $what,
            $this->url(RemotePath::root(), true),
            [CURLOPT_NOBODY => true, CURLOPT_QUOTE => $lines],
            $path,
        );
    }

    /**
     * @param  array<int, mixed>  $options
     * @param  RemotePath  $path  decides between absent and forbidden when the server says 550
     * @param  bool  $transfers  whether it opens a data connection
     * @param  (\Closure(): bool)|null  $rewind  makes ready for the same request once more; false where that cannot be
     */
    private function request(
        string $what,
        string $url,
        array $options,
        RemotePath $path,
        bool $transfers = false,
        ?\Closure $rewind = null,
    ): void {
        $error = $this->connection->request($url, $options, $transfers);
        $failure = $error === CURLE_OK ? null : $this->failure($what, $error, $path);
        if (
            $failure?->reason === FailureReason::DataRefused
            && $this->connection->givesEachTransferItsOwn()
            && ($rewind === null || $rewind())
        ) {
            $error = $this->connection->request($url, $options, $transfers);
            $failure = $error === CURLE_OK ? null : $this->failure($what, $error, $path);
        }
        $isNew = $this->connection->number(CURLINFO_NUM_CONNECTS) > 0;
        $this->factsAsked = $this->factsAsked && ! $isNew;
        $this->isBinary = $this->isBinary && ! $isNew && ! $transfers;
        if ($failure !== null) {
            throw $failure;
        }
    }

    /**
     * The bytes of a path on the server.
     *
     * @throws RemoteFailure for a name that no command can carry
     */
    private function real(RemotePath $path): string
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
    private static function canName(string $bytes): bool
    {
        return preg_match('/[\x00-\x1f\x7f]/', $bytes) !== 1;
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
            return $path->depth() > 0 && $this->stat($path) === null;
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
            return $this->stat($path) === null ? FailureReason::NotFound : FailureReason::Forbidden;
        } catch (RemoteFailure $failure) {
            return $failure->reason;
        }
    }
}
