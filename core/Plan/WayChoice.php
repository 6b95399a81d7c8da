<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** The proposed way to replace, from what each would cost, and the reason in one sentence. */
final readonly class WayChoice
{
    /** A whole tree may cost so many times what file by file costs, for visitors who never see a mixed site. */
    private const WORTH = 4;

    /** In bytes of work: less than this is done in a few seconds whatever it is compared with. */
    private const LITTLE = 5_000_000;

    /** More names than these take long enough to be noticed. */
    private const MOST_MOVES = 200;

    private function __construct(public Way $way, public string $why)
    {
    }

    /**
     * @param  list<WayCost>  $costs  one for each way
     * @param  int  $changing  files that visitors have now and that are replaced or set aside
     * @param  (\Closure(Way): bool)  $fits  whether the account has room for it
     */
    public static function propose(array $costs, int $changing, \Closure $fits): self
    {
        $byWay = [];
        foreach ($costs as $cost) {
            $byWay[$cost->way->value] = $cost;
        }
        $single = $byWay[Way::FileByFile->value] ?? throw new \LogicException('one way is always there');
        if ($changing < 2) {
            return new self(
                Way::FileByFile,
                $changing === 0
                    ? 'nothing that visitors have now is replaced'
                    : 'one file is replaced, and it changes in a single moment',
            );
        }
        $reasons = [];
        foreach ([Way::Unpack, Way::Swap] as $way) {
            $cost = $byWay[$way->value] ?? null;
            if ($cost === null) {
                continue;
            }
            $against = self::against($cost, $single, $fits);
            if ($against === null) {
                return new self($way, self::why($cost, $single));
            }
            $reasons[$against][] = $way->verb();
        }

        $sentences = [];
        foreach ($reasons as $against => $ways) {
            $sentences[] = implode(' or ', $ways).": $against";
        }

        return new self(Way::FileByFile, implode('; ', $sentences));
    }

    /** @param  (\Closure(Way): bool)  $fits */
    private static function against(WayCost $cost, WayCost $single, \Closure $fits): ?string
    {
        $isLarge = $cost->work() > self::LITTLE && $cost->work() > self::WORTH * $single->work();

        return match (true) {
            $cost->barred !== null => $cost->barred,
            ! $fits($cost->way) => 'the account has no room for a second tree',
            $cost->moves > self::MOST_MOVES => number_format($cost->moves)
                .' files and directories that stay would have to move over one by one',
            $isLarge => 'a whole tree would go up, '
                .number_format(intdiv($cost->bytes, max(1, $single->bytes))).' times the bytes that change',
            default => null,
        };
    }

    private static function why(WayCost $cost, WayCost $single): string
    {
        return $cost->way === Way::Unpack
            ? 'the host unpacks by itself, so one archive goes up for '.number_format($cost->files).' files'
            : 'this login reaches the directory above, and '.number_format($single->files).' of '
                .number_format($cost->files).' files change at once';
    }
}
