<?php

declare(strict_types=1);

namespace Tests\App;

use App\Backups\Backups;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\ProofBy;
use App\Models\SetAside;
use App\Plans\DeploymentRequest;
use App\Plans\MakePlan;
use App\Plans\Plans;
use App\Runs\Runner;
use App\Storage\RunIds;
use App\Storage\SiteLockNames;
use App\Watch\Recovery;
use Cellarium\Core\Deployment\RunRefusal;
use Cellarium\Core\Path\WireName;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Storage\WorkInProgress;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Tests\Support\Builder\SiteBuilder;
use Tests\Support\StandinHost;

/** What is said to be true stays true with a host that confirms what it does not do. */
final class LyingHostTest extends AppTestCase
{
    private function laySite(int $files = 12): void
    {
        unlink($this->root().'/default.htm');
        file_put_contents($this->root().'/index.html', 'the page that was there before');
        mkdir($this->root().'/css');
        for ($number = 2; $number <= $files; $number++) {
            file_put_contents($this->root()."/css/$number.css", "body { margin: {$number}px }");
        }
        foreach ([...(glob($this->root().'/*.html') ?: []), ...(glob($this->root().'/css/*') ?: [])] as $file) {
            touch($file, 1_700_000_000);
        }
    }

    private function page(string $path): string
    {
        return (string) $this->actingAs($this->person)->get($path)->assertOk()->getContent();
    }

    public function test_put_back_is_only_said_to_be_whole_when_it_was_read_back(): void
    {
        foreach ([['lie' => true, 'claim' => true], ['alter' => true]] as $faults) {
            is_dir($this->root().'/css') || $this->laySite();
            $this->host->faults($faults);
            [$status, $report] = $this->artisanJson('deploy', 'site.example', $this->zip());
            self::assertSame(
                [2, DeploymentState::PutBackUnproven->value],
                [$status, $report['state']],
                (string) json_encode($report),
            );
            self::assertContains('index.html', $report['unproven']);
            self::assertStringContainsString('that is not proven', $report['error']);
            self::assertStringNotContainsString('whole again', $report['error']);
            $page = $this->page("/deployments/{$report['deployment']}");
            self::assertStringContainsString('Put back, not proven', $page);
            self::assertStringContainsString('index.html</code>', $page);
            self::assertStringContainsString('Put back, not proven', $this->page('/'));
            $this->host->faults([]);
            file_put_contents($this->root().'/index.html', 'the page that was there before');
        }
    }

    public function test_what_is_read_back_only_is_really_read(): void
    {
        $this->laySite();
        $plan = app(Plans::class)->deploy($this->site, $this->package(['index.html' => '<h1>New</h1>']));
        $plan->update(['state' => DeploymentState::Queued, 'proof_by' => ProofBy::ReadingBack]);
        $this->host->faults(['alter' => true]);
        app(Runner::class)->carryOut($plan);
        self::assertSame(DeploymentState::PutBackUnproven, $plan->refresh()->state, (string) $plan->trouble);
        self::assertStringContainsString('index.html', (string) $plan->trouble);
        self::assertNull($this->site->refresh()->live_proven_at);
    }

    public function test_every_changed_file_is_compared_and_not_the_first_forty(): void
    {
        $files = ['index.html' => '<h1>New</h1>'];
        for ($number = 1; $number < 60; $number++) {
            $files["img/$number.svg"] = "<svg><!-- $number --></svg>";
        }
        $plan = app(Plans::class)->deploy($this->site, $this->package($files));
        $plan->update(['state' => DeploymentState::Queued]);
        app(Runner::class)->carryOut($plan, function (array $progress): void {
            if ($progress['stage'] === 'proving') {
                file_put_contents($this->root().'/img/57.svg', '<svg><!-- 75 --></svg>');
            }
        });
        self::assertSame(DeploymentState::PutBack, $plan->refresh()->state, (string) $plan->trouble);
        self::assertStringContainsString('img/57.svg', (string) $plan->trouble);

        config(['cellarium.proof_share' => 50]);
        $run = $this->deployedPackage($files);
        self::assertSame([31, 61], [count($run->proofs ?? []), $run->addresses]);
        self::assertStringContainsString('31 of 61 addresses fetched', $this->page("/deployments/$run->id"));
    }

    /** @param  array<string, string>  $files */
    private function deployedPackage(array $files): Deployment
    {
        [$status, $report] = $this->artisanJson('deploy', 'site.example', $this->zip($files));
        self::assertSame(0, $status, (string) json_encode($report));

        return Deployment::findOrFail($report['deployment']);
    }

    public function test_listings_that_are_cut_or_empty_make_no_backup(): void
    {
        $this->laySite();
        [$status] = $this->artisanJson('backup', 'site.example');
        self::assertSame(0, $status);
        foreach (
            ['cut' => 'in the middle of a '
                .'line', 'empty-mlsd' => 'leaves it out', 'empty' => 'leaves it out'] as $fault => $words
        ) {
            $this->host->faults(['listing_fault' => $fault]);
            [$status, $report] = $this->artisanJson('backup', 'site.example');
            self::assertSame(1, $status, $fault);
            self::assertStringContainsString($words, $report['error'], $fault);
        }
        self::assertSame(1, Backup::where('state', BackupState::Verified)->count());
    }

    public function test_a_site_that_is_really_gone_is_a_question_before_it_is_a_backup_or_a_plan(): void
    {
        $this->laySite();
        $this->artisanJson('backup', 'site.example');
        array_map(unlink(...), glob($this->root().'/css/*') ?: []);
        $this->actingAs($this->person)->post("/sites/{$this->site->id}/backups")->assertRedirect();
        $backup = Backup::latest('id')->firstOrFail();
        self::assertSame(BackupState::Question, $backup->state);
        self::assertStringContainsString('1 of the 12 files', (string) $backup->trouble);
        self::assertStringContainsString('Backup waits for an answer', $this->page('/'));
        self::assertStringContainsString('It is right, back up what is there', $this->page('/backups'));

        $this->post('/deployments', ['site' => $this->site->id, 'package' => $this->package()->id])->assertRedirect();
        $run = Deployment::latest('id')->firstOrFail();
        self::assertSame([DeploymentState::NotPlanned, RunRefusal::Collapsed], [$run->state, $run->question]);
        self::assertStringContainsString(
            'It is right, plan with what is there now',
            $this->page("/deployments/$run->id"),
        );
        $this->post("/deployments/$run->id/accept")->assertRedirect();
        self::assertSame(DeploymentState::Planned, $run->refresh()->state);
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);

        $this->post("/backups/$backup->id/accept")->assertRedirect();
        self::assertSame(BackupState::Verified, $backup->refresh()->state, (string) $backup->trouble);
    }

    public function test_every_way_that_rests_on_a_listing_asks_where_most_of_it_is_gone(): void
    {
        $files = self::SITE + ['css/b.css' => 'b{}', 'css/c.css' => 'c{}', 'css/d.css' => 'd{}'];
        $last = $this->deployed($files);
        $backup = $this->artisanJson('backup', 'site.example')[1]['id'];
        // With its directory, which cannot be asked for its names then either.
        array_map(unlink(...), glob($this->root().'/css/*') ?: []);
        rmdir($this->root().'/css');
        unlink($this->root().'/img/deep/x.svg');
        $this->actingAs($this->person);
        $site = "/sites/{$this->site->id}";
        $ways = [
            'a package' => ['/deployments', ['site' => $this->site->id, 'package' => $this->package()->id]],
            'an upload' => ["$site/file-uploads", [
                'at' => $this->site->document_root,
                'brought' => [UploadedFile::fake()->createWithContent('new.html', '<h1>New</h1>')],
            ]],
            'an undo' => ["/deployments/$last->id/undo", []],
            'a restore' => ["/backups/$backup/restore", []],
            'a part of a backup' => ["/backups/$backup/restore", ['paths' => ['index.html']]],
        ];
        foreach ($ways as $way => [$address, $fields]) {
            $this->post($address, $fields)->assertRedirect();
            $plan = Deployment::latest('id')->firstOrFail();
            self::assertSame(
                [DeploymentState::NotPlanned, RunRefusal::Collapsed],
                [$plan->state, $plan->question],
                "$way: $plan->trouble",
            );
            $this->post("/deployments/$plan->id/accept")->assertRedirect();
            self::assertSame(DeploymentState::Planned, $plan->refresh()->state, "$way: $plan->trouble");
            $this->post("/deployments/$plan->id/cancel");
        }
        $this->post("$site/backups")->assertRedirect();
        self::assertSame(BackupState::Question, Backup::latest('id')->firstOrFail()->state);
    }

    public function test_a_name_that_ftp_cannot_carry_is_told_and_the_rest_is_backed_up(): void
    {
        file_put_contents($this->root()."/price\tlist.html", 'cannot be fetched');
        file_put_contents($this->root().'/plain.html', 'can be');
        $backup = Backup::findOrFail($this->artisanJson('backup', 'site.example')[1]['id']);
        self::assertSame(BackupState::Verified, $backup->state, (string) $backup->trouble);
        self::assertSame('copy read back, but for 1 name', $backup->stands());
        self::assertSame(["price\tlist.html"], array_map(WireName::toWire(...), $backup->skipped));
        $this->actingAs($this->person)
            ->get("/backups?site={$this->site->id}")
            ->assertSee('but for 1 name')
            ->assertSee('price‹09›list.html');
        $run = $this->deployed();
        self::assertFileExists($this->root()."/price\tlist.html", 'it stays where it is');
        self::assertSame(1, count(Backup::findOrFail($run->backup_id)->skipped ?? []));
    }

    public function test_a_backup_says_what_was_read_this_time_and_reads_all_every_so_often(): void
    {
        $this->laySite(4);
        config(['cellarium.read_anew' => 3]);
        $this->travel(-9)->days();
        $this->artisanJson('backup', 'site.example');
        $day = now()->format('j M Y');
        $this->travelBack();
        [, $second] = $this->artisanJson('backup', 'site.example');
        self::assertSame([0, 4], [$second['fetched'], $second['taken_over']]);
        self::assertStringContainsString(
            "0 of 4 read this time; 4 taken from earlier readings, the oldest of $day",
            $this->page('/backups'),
        );
        // Changed with its size and time kept: nothing shows it but reading.
        file_put_contents($this->root().'/css/2.css', 'body { margin: 9px }');
        touch($this->root().'/css/2.css', 1_700_000_000);
        [, $third] = $this->artisanJson('backup', 'site.example');
        self::assertSame(0, $third['fetched']);
        [, $fourth] = $this->artisanJson('backup', 'site.example');
        self::assertSame([4, 0, null], [$fourth['fetched'], $fourth['taken_over'], $fourth['taken_over_since']]);
    }

    public function test_what_is_set_aside_is_held_listed_restored_and_let_go(): void
    {
        $this->deployed();
        [, $report] = $this->artisanJson(
            'deploy',
            'site.example',
            $this->zip(['index.html' => '<h1>Newer</h1>'], 'stones-1.1.zip'),
        );
        $id = $report['deployment'];
        self::assertSame(
            ['about.html', 'css/a.css', 'img/deep/x.svg'],
            SetAside::held()->where('deployment_id', $id)->orderBy('path')->pluck('path')->all(),
        );
        $until = now()->addDays(30)->format('j M Y');
        self::assertStringContainsString("held until $until", $this->page("/deployments/$id"));
        file_put_contents($this->root().'/about.html', 'written anew by somebody');
        $this->post("/deployments/$id/restore")->assertRedirect();
        $back = Deployment::latest('id')->firstOrFail();
        self::assertSame(
            [DeploymentState::Planned, 2],
            [$back->state, $back->counts['added']['files']],
            (string) $back->trouble,
        );
        $this->post("/deployments/$back->id/start");
        self::assertSame(DeploymentState::Proven, $back->refresh()->state, (string) $back->trouble);
        self::assertSame('body{}', file_get_contents($this->root().'/css/a.css'));
        self::assertSame('written anew by somebody', file_get_contents($this->root().'/about.html'));
        self::assertSame(['about.html'], SetAside::held()->where('deployment_id', $id)->pluck('path')->all());
        $this->travel(31)->days();
        $this->actingAs($this->person);
        self::assertSame([], SetAside::held()->where('deployment_id', $id)->pluck('path')->all());
        $this->from("/deployments/$id")
            ->followingRedirects()
            ->post("/deployments/$id/restore")
            ->assertSee('is held any more');
    }

    public function test_what_nothing_refers_to_is_cleaned_up_and_told(): void
    {
        $this->deployed();
        $inUse = count(glob("$this->var/contents/{[0-9a-f][0-9a-f],incoming}/*", GLOB_BRACE) ?: []);
        try {
            $this->package(['index.html' => '<h1>Refused</h1>', 'index.html/x' => 'x'], 'refused.zip');
            self::fail('It was taken.');
        } catch (\Cellarium\Core\Package\PackageRefused) {
            self::assertCount(
                $inUse + 2,
                glob("$this->var/contents/{[0-9a-f][0-9a-f],incoming}/*", GLOB_BRACE) ?: [],
                'what came before the refusal lies in the store',
            );
        }
        @mkdir("$this->var/contents/incoming", recursive: true);
        file_put_contents("$this->var/contents/incoming/half", 'cut off');
        $said = $this->artisanJson('clean')[1];
        self::assertSame([0, 0], [$said['files'], $said['aside_files']], 'it may still be on its way');
        foreach (glob("$this->var/contents/{[0-9a-f][0-9a-f],incoming}/*", GLOB_BRACE) ?: [] as $file) {
            touch($file, time() - 90_000);
        }
        app(WorkInProgress::class)->end(); // As whatever put them there has.
        [$status, $freed] = $this->artisanJson('clean', '--however-many', "--as={$this->person->email}");
        self::assertSame([0, 1, 2], [$status, $freed['files'], $freed['aside_files']]);
        self::assertGreaterThan(100, $freed['aside_bytes']);
        self::assertCount($inUse, glob("$this->var/contents/{[0-9a-f][0-9a-f],incoming}/*", GLOB_BRACE) ?: []);
        self::assertStringContainsString('2 files that nothing refers to moved aside', $this->page('/record'));
        [$status] = $this->artisanJson('restore', (string) Backup::firstOrFail()->id);
        self::assertSame(0, $status, 'what a backup holds is still there');
    }

    public function test_a_plan_is_ordered_at_once_and_made_by_a_worker_that_can_be_cancelled(): void
    {
        config(['queue.default' => 'database']);
        $package = $this->package();
        $this->actingAs($this->person)
            ->post('/deployments', ['site' => $this->site->id, 'package' => $package->id])
            ->assertRedirect();
        $run = Deployment::latest('id')->firstOrFail();
        self::assertSame(DeploymentState::Drafting, $run->state);
        self::assertSame('looks', DB::table('jobs')->value('queue'));
        $page = $this->page("/deployments/$run->id");
        self::assertStringContainsString('Looking at the server', $page);
        self::assertStringContainsString('every 1s', $page);
        $this->post("/deployments/$run->id/cancel")->assertRedirect();
        self::assertSame(DeploymentState::Cancelled, $run->refresh()->state);
        self::assertStringContainsString('Nothing on the server was changed', $this->page("/deployments/$run->id"));

        $again = app(Plans::class)->orderDeploy(new DeploymentRequest($this->site, $package));
        $again->update(['started_at' => now(), 'cancelled_at' => now()]);
        app(MakePlan::class)->carryOut($again->id);
        self::assertSame(DeploymentState::Cancelled, $again->refresh()->state, 'a look that goes on notices');
    }

    public function test_a_run_that_is_cancelled_puts_back_what_it_began(): void
    {
        $this->laySite();
        $before = self::contents($this->root());
        $plan = app(Plans::class)->deploy($this->site, $this->package());
        $plan->update(['state' => DeploymentState::Queued]);
        app(Runner::class)->carryOut($plan, function (array $progress) use ($plan): void {
            if ($progress['stage'] === 'sending') {
                Deployment::where('id', $plan->id)->update(['cancelled_at' => now()]);
            }
        });
        self::assertSame(DeploymentState::PutBack, $plan->refresh()->state, (string) $plan->trouble);
        self::assertStringContainsString('It was cancelled', (string) $plan->trouble);
        self::assertSame($before, self::contents($this->root()));
    }

    public function test_one_look_at_a_host_at_a_time(): void
    {
        Queue::fake();
        $run = app(Plans::class)->orderDeploy(new DeploymentRequest($this->site, $this->package()));
        $look = app(Locks::class)->acquire('look|'.StandinHost::HOST);
        self::assertNotNull($look);
        self::assertSame(2, app(MakePlan::class)->carryOut($run->id), 'seconds after which it is tried again');
        self::assertSame(DeploymentState::Drafting, $run->refresh()->state);
        $look->release();
        self::assertNull(app(MakePlan::class)->carryOut($run->id));
        self::assertSame(DeploymentState::Planned, $run->refresh()->state);
    }

    public function test_what_reaches_the_same_directory_is_one_place(): void
    {
        $user = $this->ftpUser('job', '/www/site.example');
        $same = $this->account->replicate(['in_use'])->fill(['port' => 2121, 'label' => 'saved twice']);
        $same->save();
        $jailed = $this->account
            ->replicate(['in_use'])
            ->fill(['login' => $user->login, 'label' => 'an FTP user saved as an account']);
        $jailed->save();
        foreach ([$same, $jailed] as $account) {
            $other = SiteBuilder::aSite("other$account->id.example")->on($account)->build();
            self::assertContains(
                SiteLockNames::forSite($this->site)[0],
                SiteLockNames::forSite($other->load('account')),
            );
        }
        $run = app(Plans::class)->deploy($this->site, $this->package());
        self::assertFalse(RunIds::isGoing(RunIds::forDeployment($run->id)));
        $run->update(['state' => DeploymentState::Running]);
        self::assertTrue(RunIds::isGoing(RunIds::forDeployment($run->id)));
        self::assertNull(RunIds::isGoing('abc1234'), 'no run of this Cellarium');
        self::assertFalse(RunIds::isGoing('probe'.base_convert((string) (time() - 3600), 10, 36).'abc123'));
        self::assertNull(RunIds::isGoing(RunIds::ofProbe()), 'a ladder may just be at it');
    }

    public function test_what_a_killed_worker_had_in_hand_is_taken_up_as_soon_as_its_lock_is_free(): void
    {
        Queue::fake();
        $run = app(Plans::class)->deploy($this->site, $this->package());
        $run->update(['state' => DeploymentState::Running, 'started_at' => now()]);
        $backup = Backup::create([
            'site_id' => $this->site->id,
            'reason' => 'on_demand',
            'state' => BackupState::Taking,
            'started_at' => now(),
        ]);
        $draft = app(Plans::class)->orderDeploy(new DeploymentRequest($this->site, $this->package()));
        $draft->update(['started_at' => now()]);
        $lock = app(Locks::class)->acquire(MakePlan::lockName($draft->id), ...SiteLockNames::forSite($this->site));
        self::assertNotNull($lock);
        self::assertSame(0, app(Recovery::class)->takeUp(), 'they are in hand');
        $lock->release();
        self::assertSame(3, app(Recovery::class)->takeUp());
        self::assertSame(0, app(Recovery::class)->takeUp(), 'once');
        self::assertSame(DeploymentState::Queued, $run->refresh()->state);
        self::assertNull($backup->refresh()->started_at);
        self::assertTrue(app(Backups::class)->take($backup));
        self::assertSame(BackupState::Verified, $backup->refresh()->state, (string) $backup->trouble);
    }
}
