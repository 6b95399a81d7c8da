<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\WireName;

/**
 * Takes a listing as it comes and keeps its entries only, so that a server that never stops is stopped.
 *
 * A last line without its end was cut off, whatever the server says of the transfer: what follows would be missing.
 */
final class ListingReader
{
    /** The longest line: a name has 255 bytes, facts and rights some hundreds. */
    private const LONGEST_LINE = 8192;

    /** In bytes; what is longer is no part of a name. */
    private const LONGEST_NAME = 255;

    /** @var list<RemoteEntry> */
    private array $entries = [];

    private string $rest = '';

    /** How a line of a listing begins, of whichever form; what begins so is never the rest of a name. */
    private const BEGINS_ANEW = '/\A(?:[-bcdlps][-r][-w][-xsS]|[A-Za-z.]+=[^;]*;|\d\d-\d\d-\d\d|total \d)/';

    /** @var array<int, RemoteEntry> by their places among the entries */
    private array $doubted = [];

    private ?RemoteFailure $doubt = null;

    private bool $isBehindEntry = false;

    /** @var non-empty-string|null how lines end here; null before the first has ended */
    private ?string $end = null;

    private int $bytes = 0;

    private ?RemoteFailure $failure = null;

    /** @param  string  $what  "listing /www", for what goes wrong */
    public function __construct(
        private readonly ListingLines $lines,
        private readonly string $what,
        private readonly ConnectionSettings $settings = new ConnectionSettings,
    ) {
    }

    /** @return bool false once nothing more is wanted; entries() then says why */
    public function take(string $chunk): bool
    {
        if ($this->failure !== null) {
            return false;
        }
        try {
            $this->read($chunk);
        } catch (RemoteFailure $failure) {
            $this->failure = $failure;
        }

        return $this->failure === null;
    }

    /**
     * @return list<RemoteEntry>
     *
     * @throws RemoteFailure NotUnderstood, TooMuch, or Incomplete where the last line has no end
     */
    public function entries(): array
    {
        if ($this->failure !== null || $this->doubt !== null) {
            throw $this->failure ?? $this->doubt;
        }
        if ($this->rest !== '') {
            throw RemoteFailure::while(
                $this->what,
                FailureReason::Incomplete,
                "the listing ends in the middle of a line: $this->rest",
            );
        }

        return $this->entries;
    }

    /** Whether it was broken off from this side. */
    public function gaveUp(): bool
    {
        return $this->failure !== null;
    }

    /**
     * Entries whose name may go on in the next line, as they stood in the first. Some servers write a line end in a
     * name as the end of a line, and only the server can tell that from a line of something else behind a whole name.
     *
     * @return list<RemoteEntry> empty where there is no doubt; else entries() throws
     */
    public function doubted(): array
    {
        return $this->failure === null ? array_values($this->doubted) : [];
    }

    /**
     * The entries once the server has no file by any name that was doubted.
     *
     * @return list<RemoteEntry>
     *
     * @throws RemoteFailure
     */
    public function entriesWithNamesThatGoOn(): array
    {
        $this->doubt = null;

        return $this->entries();
    }

    /** @throws RemoteFailure */
    private function entry(string $line): ?RemoteEntry
    {
        try {
            return $this->lines->entry($line);
        } catch (RemoteFailure $failure) {
            $mayGoOn = $this->isBehindEntry
                && strlen($line) <= self::LONGEST_NAME
                && preg_match(self::BEGINS_ANEW, $line) !== 1;
            $last = $mayGoOn ? array_pop($this->entries) : null;
            if ($last === null) {
                throw $failure;
            }
            $this->doubt ??= $failure;
            $this->doubted[count($this->entries)] ??= $last;

            return $last->named(WireName::fromWire(WireName::toWire($last->name)."\n$line"))->notNameable();
        }
    }

    /** @throws RemoteFailure */
    private function read(string $chunk): void
    {
        $this->bytes += strlen($chunk);
        if ($this->bytes > $this->settings->mostListingBytes) {
            throw RemoteFailure::while(
                $this->what,
                FailureReason::TooMuch,
                "more than {$this->settings->mostListingBytes} bytes of listing came",
            );
        }
        $text = $this->rest.$chunk;
        $first = strpos($text, "\n");
        // Lines end with CRLF (RFC 959, 3.1.1.1). Where the first does, a line end without CR is part of a name.
        $this->end ??= match (true) {
            $first === false => null,
            $first > 0 && $text[$first - 1] === "\r" => "\r\n",
            default => "\n",
        };
        $lines = explode($this->end ?? "\n", $text);
        $this->rest = array_pop($lines);
        foreach ($lines as $line) {
            $line = $this->end === "\n" ? rtrim($line, "\r") : $line;
            $entry = $line === '' ? null : $this->entry($line);
            $this->isBehindEntry = $entry !== null || ($this->isBehindEntry && $line === '');
            if ($entry !== null) {
                $this->entries[] = $entry;
            }
        }
        if (count($this->entries) > $this->settings->mostEntries) {
            throw RemoteFailure::while(
                $this->what,
                FailureReason::TooMuch,
                "it lists more than {$this->settings->mostEntries} names",
            );
        }
        if (strlen($this->rest) > self::LONGEST_LINE) {
            throw RemoteFailure::while($this->what, FailureReason::NotUnderstood, substr($this->rest, 0, 200));
        }
    }
}
