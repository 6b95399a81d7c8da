<?php

declare(strict_types=1);

namespace Tests\Support;

/**
 * What a visitor got while one version of a site took another's place.
 *
 * An answer is bad where it is no whole file of either version, and where a page of the new version was shown with
 * something of the old one. The site was mixed for as long as old answers were still begun after a new one had ended:
 * where a single moment parts all old answers from all new ones, that is no time at all.
 *
 * Whoever comes for a file of an old page only once those have gone, on a busy machine, does not count.
 */
final readonly class Visits
{
    /** Seconds that files of the old version stay reachable, see RunOrder. */
    private const LINGER = 1.0;

    /** @var list<string> each with its path and what was answered */
    public array $bad;

    public float $mixedMilliseconds;

    public int $requests;

    public int $old;

    public int $new;

    /**
     * @param  list<array{int, string, float, float, int, string}>  $answers  see visit.php
     * @param  array<string, string>  $before  contents by path
     * @param  array<string, string>  $after
     */
    public function __construct(array $answers, array $before, array $after)
    {
        $sums = static fn (array $files): array => array_map(static fn (string $text) => hash('xxh128', $text), $files);
        [$before, $after] = [$sums($before), $sums($after)];
        $bad = [];
        $views = $shown = [];
        [$lastOld, $firstNew, $old, $new] = [-INF, INF, 0, 0];
        usort($answers, static fn (array $one, array $other): int => $one[3] <=> $other[3]);
        foreach ($answers as [$view, $path, $begun, $ended, $status, $sum]) {
            $name = $path === '/' ? 'index.html' : ltrim($path, '/');
            $isOld = $sum === ($before[$name] ?? null);
            $isNew = $sum === ($after[$name] ?? null);
            $shown[$view] ??= $ended; // The page comes first.
            if (isset($before[$name]) && ! isset($after[$name]) && $ended - $shown[$view] > self::LINGER) {
                continue;
            }
            if ($status !== 200 || (! $isOld && ! $isNew)) {
                $bad[] = "$path: $status".($status === 200 ? ', no whole file of either version' : '');
            } elseif ($isOld && $isNew) {
                continue;
            } else {
                $version = $isNew ? 'new' : 'old';
                if ($isOld && ($views[$view] ?? 'old') === 'new') {
                    $bad[] = "$path: of the old version, in a page of the new one";
                }
                $views[$view] ??= $version;
                $isOld ? $old++ : $new++;
                // A name of one version only is asked for by whoever has a page of that version.
                if (isset($before[$name], $after[$name])) {
                    $lastOld = $isOld ? max($lastOld, $begun) : $lastOld;
                    $firstNew = $isNew ? min($firstNew, $ended) : $firstNew;
                }
            }
        }
        $this->bad = $bad;
        $this->mixedMilliseconds = max(0, 1000 * ($lastOld - $firstNew));
        $this->requests = count($answers);
        [$this->old, $this->new] = [$old, $new];
    }
}
