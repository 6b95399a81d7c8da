<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** Limits of one connection: how long it waits, and how much it takes in. */
final readonly class ConnectionSettings
{
    /** Bytes a second, slower than any line that files are really sent over. */
    private const MOST_SLOW = 8_000;

    /**
     * @param  int  $connectSeconds  until a connection stands
     * @param  int  $answerSeconds  without a sign of life
     * @param  int  $mostEntries  names in one directory
     * @param  int  $mostListingBytes  of one directory's listing
     * @param  int  $leastBytesAMinute  of a transfer that goes on; what comes slower counts as silence
     * @param  int  $stepSeconds  for one transfer in all, however small; what is large has more, as MOST_SLOW says
     */
    public function __construct(
        public int $connectSeconds = 15,
        public int $answerSeconds = 30,
        public int $mostEntries = 100_000,
        public int $mostListingBytes = 33_554_432,
        public int $leastBytesAMinute = 6_000,
        public int $stepSeconds = 300,
    ) {
    }

    /**
     * A server that trickles keeps nobody: bytes a minute, and seconds in all.
     *
     * @param  int|null  $most  bytes that may come; null where nobody knows
     * @return array<int, int> options of libcurl
     */
    public function deadline(?int $most): array
    {
        return [
            CURLOPT_LOW_SPEED_LIMIT => max(1, intdiv($this->leastBytesAMinute, 60)),
            CURLOPT_LOW_SPEED_TIME => $this->paceSeconds(),
        ] + ($most === null ? [] : [CURLOPT_TIMEOUT => $this->secondsFor($most)]);
    }

    /** Over which bytes a minute are counted, in seconds. */
    public function paceSeconds(): int
    {
        return 2 * $this->answerSeconds;
    }

    /** Seconds that one step may take in all. */
    public function secondsFor(int $most): int
    {
        return $this->stepSeconds + intdiv($most, self::MOST_SLOW);
    }
}
