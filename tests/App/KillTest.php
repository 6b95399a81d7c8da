<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Package;
use App\Plans\Plans;
use App\Work\Tasks;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Way;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;

/** A queue worker killed with SIGKILL in the middle of a run, at ten different moments. */
final class KillTest extends AppTestCase
{
    private const MOMENTS = 4;

    public function test_after_a_kill_at_any_of_four_moments_the_run_ends_with_the_new_site_whole(): void
    {
        $old = ['index.html' => '<h1>Old</h1>'];
        $new = ['index.html' => '<h1>New</h1>'];
        for ($number = 1; $number <= 12; $number++) {
            $old["page$number.html"] = "old page $number";
            $new["page$number.html"] = "new page $number, longer";
            $new["img/deep/$number.svg"] = str_repeat("<svg $number/>", 400);
        }
        $packages = [$this->package($old, 'stones-1.0.zip'), $this->package($new, 'stones-2.0.zip')];
        $states = array_map(fn (Package $package): array => $this->stateOf($package), $packages);
        $this->host->faults(['delay_ms' => 6]);
        $lines = $this->linesOfAGoodRun($packages[0]);
        self::assertSame($states[0], self::contents($this->root()));
        $takenUp = 0;
        for ($moment = 1; $moment <= self::MOMENTS; $moment++) {
            $to = $moment % 2;
            $run = $this->queued($packages[$to]);
            $before = self::contents($this->root());
            $killedAt = $this->workUntil($run, max(1, (int) round($lines[$to] * ($moment - 0.5) / self::MOMENTS)));
            // Only looked at, not read: the killed worker's own workers may still be ending.
            self::assertFileExists($this->root().'/index.html', 'there is always a start page');
            $run->refresh();
            if ($killedAt !== null) {
                self::assertSame(
                    DeploymentState::Running,
                    $run->state,
                    "moment $moment: nobody could write that it ended",
                );
                $takenUp++;
                $moment % 2 === 0 ? $this->takeUpByAnotherWorker($run) : $this->takeUpByStarting();
            }
            $run->refresh();
            self::assertSame(DeploymentState::Proven, $run->state, "moment $moment: $run->trouble");
            self::assertSame(
                $states[$to],
                self::contents($this->root()),
                "moment $moment, from ".json_encode(array_keys($before)),
            );
        }
        self::assertGreaterThanOrEqual(self::MOMENTS - 1, $takenUp, 'the kills came in time');
    }

    /** @return iterable<string, array{Way}> */
    public static function allWays(): iterable
    {
        yield 'file by file' => [Way::FileByFile];
        yield from self::ways();
    }

    #[DataProvider('allWays')]
    public function test_a_database_that_drops_every_connection_again_and_again_stops_no_run(Way $way): void
    {
        $files = ['index.html' => '<h1>New</h1>'];
        for ($number = 1; $number <= 20; $number++) {
            $files["img/deep/$number.svg"] = str_repeat("<svg $number/>", 400);
        }
        $package = $this->package($files, 'stones-3.0.zip');
        file_put_contents($this->root().'/about.html', 'theirs');
        $run = $this->queued($package, $way);
        $this->host->faults(['delay_ms' => 4]);
        $worker = $this->worker();
        $dropped = 0;
        while ($worker->runs()) {
            $others = DB::select(
                'SELECT id FROM information_schema.processlist WHERE db = DATABASE() AND id <> CONNECTION_ID()',
            );
            foreach ($others as $other) {
                try {
                    DB::statement("KILL $other->id");
                    $dropped++;
                } catch (QueryException) {
                    // It has ended by itself.
                }
            }
            usleep(60_000);
        }
        $run->refresh()->isGoing() && $this->takeUpByStarting();

        self::assertGreaterThan(0, $dropped);
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);
        self::assertEquals($this->stateOf($package) + ['/about.html' => hash('sha256', 'theirs')], array_filter(
            self::contents($this->root()),
            static fn (string $path): bool => ! str_starts_with($path, '/default.'),
            ARRAY_FILTER_USE_KEY,
        ));
    }

    /** @return iterable<string, array{Way}> */
    public static function ways(): iterable
    {
        yield 'swapped' => [Way::Swap];
        yield 'unpacked at the host' => [Way::Unpack];
    }

    #[DataProvider('ways')]
    public function test_a_tree_beside_the_site_is_gone_on_with_or_taken_away_after_a_kill_in_any_stage(Way $way): void
    {
        $packages = [];
        foreach (['old', 'new'] as $version) {
            $files = ['index.html' => "<h1>$version</h1>"];
            for ($number = 1; $number <= 30; $number++) {
                $files["img/deep/$number.svg"] = str_repeat("<svg $version $number/>", 400);
            }
            $packages[] = $this->package($files, "stones-$version.zip");
        }
        $states = array_map(fn (Package $package): array => $this->stateOf($package), $packages);
        $beside = scandir(dirname($this->root()));
        $this->queued($packages[0]);
        $this->worker()->finish();
        $this->host->faults(['delay_ms' => 4, 'control_delay_ms' => 150]);
        $stages = [RunStage::BackingUp, RunStage::Sending, RunStage::Unpacking, RunStage::Replacing, RunStage::Proving];
        $needed = [RunStage::Sending, $way === Way::Swap ? RunStage::Replacing : RunStage::Unpacking];
        $to = 0;
        foreach ($stages as $stage) {
            // A stage may be over before it is seen, on a machine that is busy with something else.
            $tries = in_array($stage, $needed, true) ? 8 : 1;
            for ($isKilled = false; ! $isKilled && $tries > 0; $tries--) {
                $to = 1 - $to;
                $run = $this->queued($packages[$to], $way);
                $isKilled = $this->killIn($run, $stage);
                $isKilled && $this->takeUpByStarting();
                $run->refresh();
                self::assertSame(DeploymentState::Proven, $run->state, "$stage->value: $run->trouble");
                // Whoever asked what visitors get went with it: that is told, and not taken for no outage.
                $isWhole = ! $isKilled || $stage->isUntouched();
                self::assertSame($isWhole, $run->outage()?->isWhole, "$stage->value: {$run->outage()?->sentence()}");
                self::assertSame($states[$to], self::contents($this->root()), $stage->value);
                self::assertSame($beside, scandir(dirname($this->root())), "$stage->value: nothing stays beside it");
            }
            self::assertTrue($isKilled || ! in_array($stage, $needed, true), "$stage->value was never seen");
        }
    }

    /** Lets a worker go until its run is in a stage, then kills it; false when it was done before. */
    private function killIn(Deployment $run, RunStage $stage): bool
    {
        $worker = $this->worker();
        $until = microtime(true) + 60;
        while (microtime(true) < $until) {
            if ($run->refresh()->stage === $stage) {
                return $worker->kill();
            }
            if (! $worker->runs()) {
                return false;
            }
            usleep(1000);
        }
        self::fail('The worker neither went on nor ended.');
    }

    private function takeUpByStarting(): void
    {
        $this->artisan('cellarium:recover', ['--starting' => true]);
        $this->worker()->finish();
    }

    /** Nobody tells the other worker: it looks between its jobs for what has no lock any more. */
    private function takeUpByAnotherWorker(Deployment $run): void
    {
        $worker = new ArtisanProcess(
            ['queue:work', '--sleep=0.1', '--tries=1', '--timeout=0', '--quiet'],
            $this->settings() + ['QUEUE_CONNECTION' => 'database'],
        );
        $until = microtime(true) + 60;
        while ($run->refresh()->isGoing() && microtime(true) < $until) {
            usleep(20_000);
        }
        $worker->kill();
    }

    /** @return array<string, string> */
    private function stateOf(Package $package): array
    {
        $files = [];
        foreach ($package->contents()->all() as $entry) {
            $files["/$entry->path".($entry->isFile() ? '' : '/')] = (string) $entry->sha256;
        }
        // Directories stay when their files are set aside: somebody else may have made them meanwhile.
        $files += ['/img/' => '', '/img/deep/' => ''];
        ksort($files);

        return $files;
    }

    /** @return array{int, int} journal lines of a run to the first and to the second package */
    private function linesOfAGoodRun(Package $package): array
    {
        mkdir($this->root().'/img/deep', 0755, true);
        $run = $this->queued($package);
        $this->worker()->finish();
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);
        $lines = count((array) file("$this->var/runs/$run->id/journal"));

        // Going to the second package sends thirteen pages and twelve drawings; going back, thirteen pages.
        return [$lines, $lines + 24];
    }

    private function queued(Package $package, Way $way = Way::FileByFile): Deployment
    {
        config(['queue.default' => 'database']);
        $run = app(Plans::class)->deploy($this->site->refresh()->load('account.client', 'account.sites'), $package);
        $run->update(['state' => DeploymentState::Queued, 'way' => $way]);
        Tasks::order(\App\Runs\CarryOutDeployment::class, $run->id);

        return $run;
    }

    /** Lets a worker go until its journal has so many lines, then kills it; null when it was done before. */
    private function workUntil(Deployment $run, int $lines): ?int
    {
        $worker = $this->worker();
        $journal = "$this->var/runs/$run->id/journal";
        $until = microtime(true) + 60;
        while (microtime(true) < $until) {
            $written = is_file($journal) ? substr_count((string) file_get_contents($journal), "\n") : 0;
            if ($written >= $lines) {
                return $worker->kill() ? $written : null;
            }
            if (! $worker->runs()) {
                return null;
            }
            usleep(1000);
        }
        self::fail('The worker neither went on nor ended.');
    }

    private function worker(): ArtisanProcess
    {
        return new ArtisanProcess(
            ['queue:work', '--stop-when-empty', '--sleep=0', '--tries=1', '--timeout=0', '--quiet'],
            $this->settings() + ['QUEUE_CONNECTION' => 'database'],
        );
    }
}
