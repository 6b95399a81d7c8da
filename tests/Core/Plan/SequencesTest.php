<?php

declare(strict_types=1);

namespace Tests\Core\Plan;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\LeftByUs;
use Cellarium\Core\Plan\PastRun;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Undo;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * All sequences of four out of deploying A, deploying B, one step back, putting a backup back and uploading by
 * hand: after each the site holds exactly what the last step says, and the plan said so before.
 */
final class SequencesTest extends TestCase
{
    /** What lay there before we came; B has one of these too. */
    private const FIRST = ['about.html' => 'theirs', 'notes.txt' => 'theirs'];

    private const A = [
        'index.html' => 'A',
        'css/a.css' => 'A',
        'only-a.html' => 'A',
        'both.html' => 'A',
    ];

    private const B = [
        'index.html' => 'B',
        'only-b.html' => 'B',
        'both.html' => 'B',
        'about.html' => 'B',
    ];

    private const BY_HAND = ['price.html' => 'by hand', 'both.html' => 'by hand'];

    /** @var array<string, string> what lies there */
    private array $live = [];

    /** @var list<array{PastRun, Plan, array<string, string>, array<string, string>}> with what was before and after */
    private array $done = [];

    /** @var list<array{array<string, string>, array<string, true>}> what each step back leads to, and whose it is */
    private array $expected = [];

    /** @return iterable<string, array{list<string>}> */
    public static function sequences(): iterable
    {
        $steps = ['deploy A', 'deploy B', 'undo', 'restore', 'by hand'];
        foreach ($steps as $one) {
            foreach ($steps as $two) {
                foreach ($steps as $three) {
                    yield "$one, $two, $three" => [[$one, $two, $three]];
                }
            }
        }
    }

    /** @param  list<string>  $three */
    #[DataProvider('sequences')]
    public function test_after_each_step_the_site_holds_what_it_says(array $three): void
    {
        foreach (['deploy A', 'deploy B', 'undo', 'restore', 'by hand'] as $last) {
            $this->live = self::FIRST;
            $this->done = [];
            $this->expected = [[self::FIRST, []]];
            foreach ([...$three, $last] as $index => $step) {
                $said = implode(', ', array_slice([...$three, $last], 0, $index + 1));
                [$files, $ours] = $this->expected($step);
                $plan = $this->plan($step);
                if ($plan === null) {
                    continue; // There is nothing to take back.
                }
                self::assertEquals(self::sorted($files), self::sorted($this->promised($plan)), "the plan of $said");
                $this->live = $this->promised($plan);
                $this->expected[] = [$files, $ours];
            }
        }
    }

    /**
     * In words of people: what a step leads to, and which of it is of a package.
     *
     * @return array{array<string, string>, array<string, true>}
     */
    private function expected(string $step): array
    {
        [$files, $ours] = $this->expected[count($this->expected) - 1];
        $package = $step === 'deploy A' ? self::A : self::B;

        return match ($step) {
            'deploy A', 'deploy B' => [
                $package + array_diff_key($files, $ours),
                array_fill_keys(array_keys($package), true),
            ],
            'by hand' => [self::BY_HAND + $files, $ours],
            'restore' => $this->expected[$this->restored() - 1],
            default => $this->expected[max(0, count($this->expected) - 2)],
        };
    }

    /** The backup that is put back: the one before the second step, where there was one. */
    private function restored(): int
    {
        return min(2, max(1, count($this->done)));
    }

    /** As the application makes it, from manifests and what it knows of the runs before. */
    private function plan(string $step): ?Plan
    {
        $runs = array_column($this->done, 0);
        $number = count($runs) + 1;
        $live = self::manifest($this->live);
        $last = $this->done[count($this->done) - 1] ?? null;
        if ($step === 'undo' && $last === null) {
            return null;
        }
        [$plan, $run] = match ($step) {
            'deploy A', 'deploy B' => $this->deploy($number, $step === 'deploy A' ? self::A : self::B),
            'by hand' => [
                Planner::plan(self::manifest(self::BY_HAND), $live, new Policy(byHand: true)),
                PastRun::byHand($number, $number),
            ],
            'restore' => [
                Planner::plan(
                    self::manifest($this->expected[$this->restored() - 1][0]),
                    $live,
                    new Policy(exact: true),
                ),
                PastRun::restore($number, $number, $this->restored(), null),
            ],
            default => [
                Planner::plan(
                    Undo::fromPlan($last[1], self::manifest($last[2]), self::manifest($last[3]), $live)->target,
                    $live,
                    new Policy(exact: true),
                ),
                PastRun::undo($number, $number, $last[0]->number),
            ],
        };
        self::assertSame([], $plan->openQuestions(), "nobody else was there before $step");
        // A step back that was taken is none that is taken back: the one before it is.
        $this->done[] = [
            $run,
            $plan,
            $this->live,
            $this->promised($plan),
        ];

        return $plan;
    }

    /**
     * @param  array<string, string>  $package
     * @return array{Plan, PastRun}
     */
    private function deploy(int $number, array $package): array
    {
        $ours = LeftByUs::paths(array_column($this->done, 0), null);
        $last = $this->done[count($this->done) - 1] ?? null;

        return [
            Planner::plan(
                self::manifest($package),
                self::manifest($this->live),
                new Policy(ours: $ours),
                $last === null ? null : self::manifest($last[3]),
            ),
            PastRun::deploy($number, $number, null, static fn (): array => array_keys($package)),
        ];
    }

    /** @return array<string, string> what would lie there once it was carried out */
    private function promised(Plan $plan): array
    {
        $files = [];
        foreach ($plan->items as $item) {
            if (! $item->isFile() || $item->change === Change::SetAside || $item->change === Change::LeftAway) {
                continue;
            }
            $is = $item->change === Change::Keep ? $item->live : $item->target ?? $item->live;
            $files[$item->path->toString()] = array_search($is?->sha256, self::hashes(), true);
        }

        return $files;
    }

    /** @return array<string, string> */
    private static function hashes(): array
    {
        $hashes = [];
        foreach (['theirs', 'A', 'B', 'by hand'] as $text) {
            $hashes[$text] = hash('sha256', $text);
        }

        return $hashes;
    }

    /** @param  array<string, string>  $files */
    private static function manifest(array $files): Manifest
    {
        $entries = [];
        foreach ($files as $path => $text) {
            $relative = RelativePath::fromString($path);
            foreach ($relative->ancestors() as $above) {
                $entries[] = new ManifestEntry($above, EntryKind::Directory);
            }
            $entries[] = new ManifestEntry($relative, EntryKind::File, strlen($text), sha256: hash('sha256', $text));
        }

        return Manifest::fromEntries($entries);
    }

    /**
     * @param  array<string, string>  $files
     * @return array<string, string>
     */
    private static function sorted(array $files): array
    {
        ksort($files);

        return $files;
    }
}
