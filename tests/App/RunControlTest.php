<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Plans\Plans;
use App\Runs\CarryOutDeployment;
use App\Work\Tasks;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Plan\Way;

/** A run in a worker of its own, while somebody looks at it and says what to do. */
final class RunControlTest extends AppTestCase
{
    private ?ArtisanProcess $worker = null;

    protected function tearDown(): void
    {
        $this->worker?->runs() === true && $this->worker->kill();
        parent::tearDown();
    }

    /** @param  array<string, string>  $settings */
    private function begun(array $settings = []): Deployment
    {
        $files = ['index.html' => 'start'];
        for ($number = 0; $number < 40; $number++) {
            $files["img/$number.svg"] = str_repeat("<svg $number/>", 10);
        }
        config(['queue.default' => 'database']);
        $run = app(Plans::class)->deploy($this->site, $this->package($files));
        $run->update(['state' => DeploymentState::Queued]);
        Tasks::order(CarryOutDeployment::class, $run->id);
        $this->worker = new ArtisanProcess(
            ['queue:work', '--stop-when-empty', '--sleep=0', '--tries=1', '--timeout=0', '--quiet'],
            $settings + $this->settings() + ['QUEUE_CONNECTION' => 'database'],
        );
        $this->actingAs($this->person);

        return $run;
    }

    /** @param  \Closure(Deployment): bool  $holds */
    private function waitUntil(Deployment $run, \Closure $holds, string $what): void
    {
        $until = microtime(true) + 30;
        while (! $holds($run->refresh())) {
            microtime(true) < $until || self::fail("$what, but it stands at {$run->state->value} $run->trouble");
            usleep(20_000);
        }
    }

    private function ended(Deployment $run): void
    {
        $this->waitUntil($run, static fn (Deployment $run): bool => ! $run->isGoing(), 'It should end');
    }

    /** @return list<string> what is said of each file of a page */
    private static function ofFiles(string $page): array
    {
        preg_match('/<ol class="files-going" aria-label="Files">(.*?)<\/ol>/s', $page, $list);
        preg_match_all('/<span>([^<]*)<\/span><\/li>/', $list[1] ?? '', $words);

        return $words[1];
    }

    public function test_a_paused_run_stands_still_and_goes_on_where_it_was(): void
    {
        $this->host->faults(['delay_ms' => 200]);
        $run = $this->begun();
        $this->waitUntil(
            $run,
            static fn (Deployment $run): bool => $run->stage === RunStage::Sending
                && ($run->progress['files_done'] ?? 0) > 2,
            'It should send',
        );
        $this->post("/deployments/$run->id/pause")->assertRedirect();
        $page = $this->get("/deployments/$run->id/live")->assertSee('Go on')->assertSee('Paused:');
        $said = array_count_values(array_map(
            static fn (string $words): string => (string) preg_replace('/,.*/', '', $words),
            self::ofFiles((string) $page->getContent()),
        ));
        self::assertSame(41, array_sum($said), 'each file has its row');
        self::assertGreaterThan(2, $said['is there'] ?? 0);
        self::assertGreaterThan(0, $said['waits'] ?? 0);
        // What was in hand when it heard of it is finished.
        $done = -1;
        $this->waitUntil($run, static function (Deployment $run) use (&$done): bool {
            usleep(1_200_000);
            [$before, $done] = [$done, $run->refresh()->progress['files_done'] ?? self::fail('It ended.')];

            return $before === $done;
        }, 'It should stand still');
        self::assertLessThan(41, $done);
        self::assertFileDoesNotExist($this->root().'/index.html', 'visitors see nothing of it');
        $this->post("/deployments/$run->id/go-on");
        $this->ended($run);
        self::assertSame(DeploymentState::Proven, $run->state, (string) $run->trouble);
        $this->get("/deployments/$run->id/live", ['HX-Request' => 'true'])
            ->assertHeader('HX-Retarget', '#run')
            ->assertSee('<title>Live and proven:', false);
    }

    public function test_what_could_not_be_sent_waits_for_a_person_and_is_sent_again_alone(): void
    {
        $this->host->faults(['lie' => true]);
        $run = $this->begun(['CELLARIUM_DECISION_SECONDS' => '60']);
        $this->waitUntil($run, static fn (Deployment $run): bool => $run->decide_until !== null, 'It should ask');
        $this->get("/deployments/$run->id/live")->assertSeeInOrder([
            'Waits for you',
            'could not be',
            'index.html',
            'not as long as what was sent',
            'Try these again',
            'Stop and go back',
            'was refused',
        ]);
        $this->host->faults([]);
        $this->post("/deployments/$run->id/retry")->assertRedirect();
        $this->ended($run);
        self::assertSame(DeploymentState::Proven, $run->state, (string) $run->trouble);
    }

    public function test_who_stops_a_run_that_waits_has_the_old_site_back(): void
    {
        $before = self::contents($this->root());
        $this->host->faults(['lie' => true]);
        $run = $this->begun(['CELLARIUM_DECISION_SECONDS' => '60']);
        $this->waitUntil($run, static fn (Deployment $run): bool => $run->decide_until !== null, 'It should ask');
        $this->host->faults([]);
        $this->post("/deployments/$run->id/cancel");
        $this->ended($run);
        self::assertSame(DeploymentState::PutBack, $run->state, (string) $run->trouble);
        self::assertSame($before, self::contents($this->root()));
    }

    /** A site whose new pages the web server may not read, since its host sets other modes than it is told. */
    private function unproven(): Deployment
    {
        $this->site->update(['proof_decides' => 5]);
        config(['queue.default' => 'database']);
        $run = app(Plans::class)->deploy($this->site, $this->package(['index.html' => 'new']));
        $run->update(['state' => DeploymentState::Queued, 'way' => Way::FileByFile]);
        $this->actingAs($this->person);
        Tasks::order(CarryOutDeployment::class, $run->id);
        $this->worker = new ArtisanProcess(
            ['queue:work', '--stop-when-empty', '--sleep=0', '--tries=1', '--timeout=0', '--quiet'],
            $this->settings() + ['QUEUE_CONNECTION' => 'database'],
        );
        $this->waitUntil($run, static fn (Deployment $run): bool => $run->decide_until !== null, 'It should ask');

        return $run;
    }

    public function test_after_a_failed_proof_a_person_mends_what_keeps_the_web_server_out_and_proves_again(): void
    {
        file_put_contents($this->root().'/index.html', 'old');
        chmod($this->root().'/index.html', 0640);
        $run = $this->unproven();
        $this->get("/deployments/$run->id")
            ->assertSee('An address does not show what was sent')
            ->assertSee('Set index.html to 0644');

        $this->post("/deployments/$run->id/retry", ['mend' => '1']);
        $this->ended($run);

        self::assertSame(DeploymentState::Proven, $run->state, (string) $run->trouble);
        self::assertSame(0644, fileperms($this->root().'/index.html') & 07777);
    }

    public function test_who_goes_back_after_a_failed_proof_has_the_old_site(): void
    {
        file_put_contents($this->root().'/index.html', 'old');
        chmod($this->root().'/index.html', 0640);
        $run = $this->unproven();
        $this->post("/deployments/$run->id/cancel");
        $this->ended($run);

        self::assertNotSame(DeploymentState::Proven, $run->state);
        self::assertSame('old', file_get_contents($this->root().'/index.html'));
    }
}
