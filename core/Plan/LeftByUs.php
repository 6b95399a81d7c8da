<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/**
 * Files on the server that count as put there by us, so that a new version may set them aside: those of the package
 * that went there last. A step back, or a backup that was put back, brings the files of an earlier version; these count
 * again as they did then. What lay there before we came, or was put there by hand, never does.
 */
final class LeftByUs
{
    /** @var array<int, PastRun> by number, oldest first */
    private array $runs = [];

    /**
     * Paths, the run whose package they are of, and the last run that decided that, by the backup before which it was
     * so.
     *
     * @var array<int, array{array<string, int|true>, int|null, int|null}>
     */
    private array $known = [];

    /** @param  iterable<PastRun>  $runs  proven ones of one site, in any order */
    private function __construct(iterable $runs, private readonly ?string $place)
    {
        foreach ($runs as $run) {
            $this->runs[$run->number] = $run;
        }
        uasort($this->runs, static fn (PastRun $one, PastRun $other): int => [$one->backup, $one->number]
            <=> [$other->backup, $other->number]);
    }

    /**
     * @param  iterable<PastRun>  $runs  proven ones of one site, in any order
     * @param  string|null  $place  directory that the next package goes to; null for where visitors come in
     * @return list<string> paths of files
     */
    public static function paths(iterable $runs, ?string $place): array
    {
        return array_map(strval(...), array_keys((new self($runs, $place))->before(PHP_INT_MAX)[0]));
    }

    /** @return array{array<string, int|true>, int|null, int|null} as $known has them */
    private function before(int $backup): array
    {
        if (isset($this->known[$backup])) {
            return $this->known[$backup];
        }
        $this->known[$backup] = [[], null, null]; // Of a history that turns in a circle nothing is known.
        $state = [[], null, null];
        foreach (array_reverse($this->runs) as $run) {
            if ($run->backup >= $backup || ! $this->decides($run)) {
                continue;
            }
            $state = match ($run->kind) {
                PastRunKind::Deploy => [
                    array_flip($run->brings === null ? [] : ($run->brings)()),
                    $run->number,
                    $run->number,
                ],
                PastRunKind::Undo => $this->undone($run),
                default => $this->restored($run),
            };

            break;
        }

        return $this->known[$backup] = $state;
    }

    private function decides(PastRun $run): bool
    {
        return match ($run->kind) {
            PastRunKind::Deploy => $run->place === $this->place,
            PastRunKind::ByHand => false,
            PastRunKind::Undo, PastRunKind::Restore => true,
        };
    }

    /** @return array{array<string, int|true>, int|null, int|null} */
    private function undone(PastRun $run): array
    {
        $prior = $this->before($run->backup);
        $undone = $this->runs[$run->undoes ?? 0] ?? null;
        // What went elsewhere, or was overtaken by another version, takes nothing of this back.
        $isOfThis = $undone !== null && $this->decides($undone)
            && in_array($undone->number, [$prior[1], $prior[2]], true);
        [$paths, $of] = $isOfThis ? $this->before($undone->backup) : $prior;

        return [$paths, $of, $run->number];
    }

    /** @return array{array<string, int|true>, int|null, int|null} */
    private function restored(PastRun $run): array
    {
        [$paths, $of] = $this->before($run->fromBackup ?? 0);
        if ($run->paths === null) {
            return [$paths, $of, $run->number];
        }
        $prior = $this->before($run->backup);
        $isChosen = static function (string|int $path) use ($run): bool {
            foreach ($run->paths ?? [] as $chosen) {
                if ((string) $path === $chosen || str_starts_with((string) $path, "$chosen/")) {
                    return true;
                }
            }

            return false;
        };

        return [
            array_filter($paths, $isChosen, ARRAY_FILTER_USE_KEY)
                + array_diff_key($prior[0], array_filter($prior[0], $isChosen, ARRAY_FILTER_USE_KEY)),
            $prior[1],
            $run->number,
        ];
    }
}
