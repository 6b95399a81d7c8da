<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * The clock as far as what removes for age may believe it: it is looked at every minute, and once it has leapt, either
 * way, a day has to go by. A machine that was off looks the same as one whose clock was wrong; waiting loses nothing.
 */
final readonly class SteadyClock
{
    /** Between two looks; a machine may be off for a night, or be restored from a snapshot of yesterday. */
    private const AHEAD_SECONDS = 36 * 3600;

    private const BACK_SECONDS = 300;

    private const STEADY_SECONDS = 86_400;

    /**
     * @param  int  $seen  seconds since 1970 that it showed last
     * @param  int|null  $leapt  that it showed after it had leapt; null where it has not, or long ago
     * @param  int  $by  seconds that it leapt; below 0 where it was put back
     */
    private function __construct(public int $seen, public ?int $leapt, public int $by)
    {
    }

    public static function begin(int $now): self
    {
        return new self($now, null, 0);
    }

    /** As it is after another look. */
    public function at(int $now): self
    {
        $by = $now - $this->seen;
        if ($by > self::AHEAD_SECONDS || $by < -self::BACK_SECONDS) {
            return new self($now, $now, $by);
        }
        $isSteady = $this->leapt === null || $now - $this->leapt >= self::STEADY_SECONDS;

        return new self($now, $isSteady ? null : $this->leapt, $isSteady ? 0 : $this->by);
    }

    /** Seconds since 1970 from when it is believed again; null where it is. */
    public function believedFrom(): ?int
    {
        return $this->leapt === null ? null : $this->leapt + self::STEADY_SECONDS;
    }

    /** @return array{int, int|null, int} */
    public function toList(): array
    {
        return [$this->seen, $this->leapt, $this->by];
    }

    /** @param  array{int, int|null, int}  $list */
    public static function fromList(array $list): self
    {
        return new self(...$list);
    }
}
