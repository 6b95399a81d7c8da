<?php

declare(strict_types=1);

namespace Tests\App;

use App\Backups\SitesBackedUp;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Site;
use App\Plans\Plans;
use App\Runs\RunProgress;
use App\Storage\RunFiles;
use Cellarium\Core\Deployment\JournalMark;
use Cellarium\Core\Deployment\RunStage;
use Tests\Support\Builder\SiteBuilder;

/** Pages that say how far a run has come, and what keeps one from beginning. */
final class RunPagesTest extends AppTestCase
{
    /** A quarter of the addresses of a small run, as it is written down. */
    private const PROGRESS = [
        'files' => 4,
        'files_done' => 1,
        'bytes' => 0,
        'bytes_done' => 0,
        'share' => 0.25,
        'now' => null,
        'average' => null,
        'left' => null,
        'stage_seconds' => 1.0,
        'speeds' => [],
        'speeds_each' => 1.0,
        'failed' => [],
        'lanes' => [],
    ];

    public function test_of_each_file_it_is_said_how_far_it_has_come(): void
    {
        $run = app(Plans::class)->deploy($this->site, $this->package(self::SITE));
        $journal = app(RunFiles::class)->journal($run);
        foreach (['about.html', 'css/a.css', 'index.html'] as $path) {
            $journal->note(JournalMark::Sent, $path);
        }
        $journal->note(JournalMark::Renamed, 'css/a.css');
        $journal->note(JournalMark::Renamed, 'index.html');
        $run->update(['state' => DeploymentState::Running, 'started_at' => now(), 'stage' => RunStage::Proving]);
        $run->update(['progress' => ['shown' => ['index.html']] + self::PROGRESS]);
        $this->actingAs($this->person);
        $page = (string) $this->get("/deployments/$run->id/live")->assertOk()->getContent();
        preg_match('/<ol class="files-going" aria-label="Files">(.*?)<\/ol>/s', $page, $list);
        preg_match_all('/<span>([^<]*)<\/span><\/li>/', $list[1] ?? '', $words);
        self::assertSame(['is there', 'is there, its name given', 'waits', 'is there with the same bytes'], $words[1]);
    }

    public function test_many_addresses_have_a_bar_and_a_time_beside_what_is_usual(): void
    {
        $run = new Deployment(['stage' => RunStage::Proving, 'progress' => [
            'files' => 3000,
            'files_done' => 1200,
            'share' => 0.4,
            'left' => 60.0,
            'stage_seconds' => 40.0,
        ] + self::PROGRESS]);
        $this->travelTo('2026-05-04 14:31:00');
        foreach ([
            '' => null,
            ', as quick as usual here' => 100.0,
            ', slower than usual here' => 50.0,
            ', quicker than usual here' => 400.0,
        ] as $words => $usual) {
            $progress = new RunProgress($run, $usual);
            self::assertSame(40, $progress->percent());
            self::assertSame(['Answered' => '1,200 of 3,000', 'Ready' => "about 14:32$words"], $progress->pairs());
            self::assertSame(['Elapsed'], array_keys($progress->details()), 'not beside it');
        }
    }

    public function test_each_stage_has_its_word_for_what_it_is_done_with(): void
    {
        foreach (['Sending' => 'There', 'Replacing' => 'Named', 'Proving' => 'Answered'] as $stage => $word) {
            $run = new Deployment(['stage' => constant(RunStage::class."::$stage"), 'progress' => self::PROGRESS]);
            self::assertSame([$word => '1 of 4'], (new RunProgress($run))->pairs());
        }
    }

    public function test_where_there_is_no_room_the_plan_is_not_offered_to_begin(): void
    {
        $run = app(Plans::class)->deploy($this->site, $this->package());
        $this->actingAs($this->person);
        $this->get("/deployments/$run->id")->assertSee("/deployments/$run->id/start", false);
        $this->account->update(['space_used' => 1_000_000, 'space_limit' => 1_000_010]);
        $this->get("/deployments/$run->id")
            ->assertOk()
            ->assertSee('There is no room for it as it is')
            ->assertSee('Look at the server again')
            ->assertDontSee("/deployments/$run->id/start", false);
    }

    public function test_how_every_site_stands_begins_with_broken_promises(): void
    {
        $this->site->update(['backup_promised_at' => now()->addDay()]);
        foreach (['kept.example' => now()->addHour(), 'broken.example' => now()->subDay()] as $domain => $promised) {
            SiteBuilder::aSite($domain)->on($this->account)->with(['backup_promised_at' => $promised])->build();
        }
        self::assertSame(
            ['broken.example', 'kept.example', 'site.example'],
            app(SitesBackedUp::class)->sites->getCollection()->map(
                static fn (Site $site): string => $site->domain,
            )->all(),
        );
    }
}
