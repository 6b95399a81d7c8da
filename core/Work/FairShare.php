<?php

declare(strict_types=1);

namespace Cellarium\Core\Work;

/**
 * The choice of a piece of work for a free worker, so that a host that does not answer keeps only its share of them.
 *
 * The first piece at a host takes any worker that is free. Each further one leaves a quarter of all workers free, times
 * the pieces that are in hand there already: with twelve workers, a host that hangs keeps one as soon as four others
 * hang too, and ten that hang leave two workers to everybody else. Work that nobody waits for has a quarter of the
 * workers in all, and what is downloaded, which takes as long as its bytes take, a half.
 */
final readonly class FairShare
{
    /** @param  int  $workers  of all kinds together, from 1 */
    public function __construct(private int $workers)
    {
    }

    /**
     * @param  list<WorkAtHost>  $waiting  the oldest of each urgency and host will do
     * @param  list<WorkAtHost>  $inHand
     * @return WorkAtHost|null null where nothing waits that may be begun now
     */
    public function next(array $waiting, array $inHand): ?WorkAtHost
    {
        $free = $this->workers - count($inHand);
        $atHost = self::atHost($inHand);
        $urgencies = array_map(static fn (WorkAtHost $work): Urgency => $work->claim->urgency, $inHand);
        $byThemselves = count(array_filter($urgencies, static fn (Urgency $urgency): bool => $urgency->isByItself()));
        $downloads = count(array_keys($urgencies, Urgency::Download, true));
        $mayBegin = fn (WorkAtHost $work): bool => $free > ($atHost[$work->claim->host ?? ''] ?? 0) * $this->quarter()
            && ! ($work->claim->urgency->isByItself() && $byThemselves >= $this->quarter())
            && ! ($work->claim->urgency === Urgency::Download && $downloads >= max(1, intdiv($this->workers, 2)));

        return self::first(array_filter($waiting, $mayBegin), $inHand);
    }

    /**
     * The most urgent of all whose turn it is, held to no share: for a worker that is kept for one kind of work. Among
     * equals the host with the fewest pieces in hand goes first, then the oldest.
     *
     * @param  array<WorkAtHost>  $waiting
     * @param  list<WorkAtHost>  $inHand
     */
    public static function first(array $waiting, array $inHand): ?WorkAtHost
    {
        $turns = array_flip(
            array_filter(array_map(static fn (WorkAtHost $work): ?string => $work->claim->turn, $inHand)),
        );
        $waiting = array_filter(
            $waiting,
            static fn (WorkAtHost $work): bool => ! isset($turns[$work->claim->turn ?? '']),
        );
        $atHost = self::atHost($inHand);
        $order = static fn (WorkAtHost $work): array => [
            $work->claim->urgency->rank(),
            $atHost[$work->claim->host ?? ''] ?? 0,
            $work->id,
        ];
        usort($waiting, static fn (WorkAtHost $one, WorkAtHost $other): int => $order($one) <=> $order($other));

        return $waiting[0] ?? null;
    }

    /**
     * @param  list<WorkAtHost>  $inHand
     * @return array<string, int>
     */
    private static function atHost(array $inHand): array
    {
        return array_count_values(array_filter(
            array_map(static fn (WorkAtHost $work): ?string => $work->claim->host, $inHand),
            is_string(...),
        ));
    }

    private function quarter(): int
    {
        return max(1, intdiv($this->workers, 4));
    }
}
