<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;
use CurlHandle;

/** Listings over FTP: by MLSD (RFC 3659, 7) where the server knows it, else by LIST or NLST. */
final class FtpLister
{
    /** Whether the server knows MLSD; found out by asking it. */
    private bool $machineLists = true;

    /** The directory that is being listed, where its path is known. */
    private ?RemotePath $listing = null;

    /** The directory a sign-in lands in, as the server calls it. */
    private ?string $landing = null;

    /** Whether the server, without MLSD, lists hidden files without being asked to. */
    private bool $hidesNothing = false;

    public function __construct(private readonly FtpSession $session, private readonly ConnectionSettings $settings)
    {
    }

    /** @return list<RemoteEntry> */
    public function list(RemotePath $directory): array
    {
        $this->listing = $directory;
        try {
            return $this->listed($directory);
        } finally {
            $this->listing = null;
        }
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

    /** @return list<RemoteEntry> */
    public function landing(): array
    {
        $entries = $this->listHere(
            $this->landing === null ? [] : ["CWD $this->landing"],
            'listing where the sign-in lands',
            RemotePath::root(),
        );
        $this->landing ??= $this->session->connection->entryPath();

        return $entries;
    }

    /** @return list<RemoteEntry> */
    public function listAt(string $raw): array
    {
        if (preg_match('/[\x00-\x1f\x7f]/', $raw) === 1) {
            throw new \InvalidArgumentException('a command is one line');
        }
        $this->landing ?? $this->landing();
        // Asked first whether it may go there: libcurl hangs up after a refused command that it was told to insist on.
        $this->session->command("listing $raw", ["CWD $this->landing", "*CWD $raw"], RemotePath::root());
        $said = (string) $this->session->connection->lastReply();
        if (! str_starts_with($said, '2')) {
            throw RemoteFailure::while(
                "listing $raw",
                str_starts_with($said, '4') ? FailureReason::TimedOut : FailureReason::NotFound,
                $said,
            );
        }

        return $this->listHere(["CWD $this->landing", "CWD $raw"], "listing $raw", RemotePath::root());
    }

    /**
     * @param  list<string>  $names
     * @return list<string>
     */
    public function namesOtherwise(RemotePath $directory, array $names): array
    {
        $this->session->connection->renew();
        $there = [];
        foreach ($names as $name) {
            $this->session->command(
                "looking for $name in $directory",
                ['*TYPE I', "*SIZE {$this->session->real($directory->child($name))}"],
                RemotePath::root(),
            );
            if (preg_match('/\A213 \d/', (string) $this->session->connection->lastReply()) === 1) {
                $there[] = $name;
            }
        }
        // LIST where the first look was by MLSD, NLST where it was by LIST.
        $what = "listing $directory by another command";
        $commands = $this->machineLists ? ['LIST -a', 'LIST'] : ['NLST -a', 'NLST'];
        try {
            $listed = $this->listBy(
                $commands,
                ["CWD {$this->session->real($directory)}"],
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
        $this->session->command(
            "looking for $raw",
            ["CWD $this->landing", '*TYPE I', "*SIZE $raw"],
            RemotePath::root(),
        );

        return preg_match('/\A213 \d/', (string) $this->session->connection->lastReply()) === 1;
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
            static fn (RemoteEntry $entry): bool => FtpSession::canName(WireName::toWire($entry->name)),
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
        if ($this->session->size($path) !== null) {
            return true;
        }
        $this->session->command("looking at $path", ["*CWD {$this->session->real($path)}"], $path->parent());

        return str_starts_with((string) $this->session->connection->lastReply(), '2');
    }

    /** @return list<RemoteEntry> */
    private function listed(RemotePath $directory): array
    {
        $what = "listing $directory";
        if (! $this->machineLists) {
            return $this->customList($directory, $what);
        }
        $options = [CURLOPT_CUSTOMREQUEST => 'MLSD'];
        if (! $this->session->factsAsked) {
            // Some servers leave the mode out unless it is asked for (RFC 3659 section 7.9).
            $options[CURLOPT_QUOTE] = ['*OPTS MLST type;size;modify;unix.mode;'];
        }
        try {
            $entries = $this->listing(
                new MachineListing($what),
                $what,
                $this->session->url($directory, true),
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
        $this->session->factsAsked = true;

        return $entries;
    }

    /**
     * Goes there first: without that some servers answer for what is not there with an empty listing, and for a file
     * with a line about it.
     *
     * @return list<RemoteEntry>
     */
    private function customList(RemotePath $directory, string $what): array
    {
        return $this->listHere(["CWD {$this->session->real($directory)}"], $what, $directory);
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
        $url = "{$this->session->connection->base}/";
        foreach ($commands as $command) {
            $lines = match (substr($command, 0, 4)) {
                'MLSD' => new MachineListing($what),
                'NLST' => new NameListing,
                default => new ListListing($what, time()),
            };
            try {
                $this->session->lead();
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
            $this->session->transfer($what, $url, $options, $path);
        } catch (RemoteFailure $failure) {
            throw $reader->gaveUp() ? $this->whyGivenUp($reader, $failure) : $failure;
        }

        $entries = $reader->doubted() === [] ? $reader->entries() : $this->confirmed($reader);

        return array_map(
            static fn (RemoteEntry $entry): RemoteEntry => FtpSession::canName(WireName::toWire($entry->name))
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
}
