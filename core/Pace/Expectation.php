<?php

declare(strict_types=1);

namespace Cellarium\Core\Pace;

/** The time that a stage will take, from the times it took before on the same account. */
final readonly class Expectation
{
    /**
     * @param  float  $seconds  in the middle of what was seen
     * @param  int  $from  how many runs it rests on
     */
    private function __construct(
        public float $seconds,
        public float $least,
        public float $most,
        public int $from,
    ) {
    }

    /**
     * @param  list<Pace>  $paces  measured before; null comes of none, but where there is nothing to do
     */
    public static function fromPaces(array $paces, int $files, int $bytes, int $connections): ?self
    {
        if ($files === 0) {
            return new self(0, 0, 0, count($paces));
        }
        if ($paces === []) {
            return null;
        }
        $seconds = array_map(static fn (Pace $pace): float => $pace->of($files, $bytes, $connections), $paces);
        sort($seconds);
        $middle = intdiv(count($seconds) - 1, 2);

        return new self(
            ($seconds[$middle] + $seconds[intdiv(count($seconds), 2)]) / 2,
            $seconds[0],
            $seconds[count($seconds) - 1],
            count($seconds),
        );
    }
}
