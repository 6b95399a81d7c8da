<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/**
 * Takes a listing as it comes and keeps its entries only, so that a server that never stops is stopped.
 *
 * A last line without its end was cut off, whatever the server says of the transfer: what follows would be missing.
 */
final class ListingReader
{
    /** The longest line: a name has 255 bytes, facts and rights some hundreds. */
    private const LONGEST_LINE = 8192;

    /** @var list<RemoteEntry> */
    private array $entries = [];

    private string $rest = '';

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
        if ($this->failure !== null) {
            throw $this->failure;
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
        $lines = explode("\n", $this->rest.$chunk);
        $this->rest = array_pop($lines);
        foreach ($lines as $line) {
            $line = rtrim($line, "\r");
            $entry = $line === '' ? null : $this->lines->entry($line);
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
