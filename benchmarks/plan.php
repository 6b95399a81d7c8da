<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/plan.php [FILES]
 *
 * Plans a site of many files, what was deployed, what is live and the package against each other, and stores the plan;
 * then reads from it what a page shows. The baseline, in the same run, is reading and hashing as many bytes as the
 * stored plan has.
 */

use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\KeptPlan;
use Cellarium\Core\Deployment\StagedTree;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\PlanFilter;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;

require __DIR__.'/../vendor/autoload.php';

$files = (int) ($argv[1] ?? 50_000);
$part = $argv[2] ?? 'plan';
$directory = $argv[3] ?? sys_get_temp_dir().'/plan-'.bin2hex(random_bytes(6));

/** A tenth of the files differs by the edition, a hundredth is only in one. */
$site = static function (int $edition) use ($files): Manifest {
    $entries = (static function () use ($edition, $files): Generator {
        for ($number = 0; $number < $files; $number++) {
            $at = intdiv($number, 500);
            if ($number % 500 === 0) {
                yield new ManifestEntry(RelativePath::fromString("part-$at"), EntryKind::Directory);
            }
            if ($number % 50 === 0) {
                $inner = intdiv($number, 50);
                yield new ManifestEntry(RelativePath::fromString("part-$at/inner-$inner"), EntryKind::Directory);
            }
            $inner = intdiv($number, 50);
            $differs = $number % 10 === 0 ? $edition : 0;
            $number % 100 === $edition || yield new ManifestEntry(
                RelativePath::fromString("part-$at/inner-$inner/page-$number.html"),
                EntryKind::File,
                2000 + $number % 97,
                1_790_000_000 + $number,
                0644,
                hash('sha256', "$number $differs"),
            );
        }
    })();

    return Manifest::fromEntries($entries);
};
$measure = static function (string $name, Closure $work): void {
    $start = hrtime(true);
    $work();
    printf("%-46s %7.0f ms %7.1f MB at most\n", $name, (hrtime(true) - $start) / 1e6, memory_get_peak_usage() / 1e6);
};

$kept = new KeptPlan(new FileJournal($directory), 'draft');
if ($part === 'plan') {
    [$deployed, $live, $package] = [$site(1), $site(2), $site(3)];
    $ours = array_map(static fn (ManifestEntry $file): string => (string) $file->path, $deployed->files());
    printf("%d files, %d directories\n\n", $files, count($live->all()) - count($live->files()));
    $plan = null;
    $measure('three manifests in memory', static fn (): null => null);
    $measure('planned', static function () use (&$plan, $package, $live, $deployed, $ours): void {
        $plan = Planner::plan($package, $live, new Policy(ours: $ours), $deployed);
    });
    $measure('stored', static fn () => $kept->keep($plan));
    $measure('the tree of a swap', static fn () => StagedTree::fromPlan($plan));
    printf("\n%d questions\n\n", count($plan->openQuestions()));
    unset($plan, $deployed, $live, $package, $ours);
    passthru(escapeshellarg(PHP_BINARY).' '.escapeshellarg(__FILE__)." $files read ".escapeshellarg($directory));
    array_map(unlink(...), glob("$directory/*") ?: []);
    rmdir($directory);
} else {
    $reader = null;
    $measure('table of contents read', static function () use (&$reader, $kept): void {
        $reader = $kept->reader();
    });
    $measure('the top', static fn () => [$reader->contents->inside(''), $reader->files('', new PlanFilter)]);
    $measure('one directory', static fn () => $reader->files('part-40/inner-400', new PlanFilter));
    $measure('by name, all', static fn () => $reader->search(new PlanFilter(name: '4999'), 0, 200));
    $measure('replaced, all', static fn () => $reader->search(new PlanFilter(Change::Replace), 0, 200));
    $measure('by name, none', static fn () => $reader->search(new PlanFilter(name: 'nowhere'), 0, 200));
    $text = (string) file_get_contents("$directory/draft");
    printf("\nstored plan %.1f MB\n", strlen($text) / 1e6);
    $measure('baseline: the same bytes hashed', static fn () => hash('sha256', $text));
    $measure('all of it read', static fn () => $kept->plan());
}
