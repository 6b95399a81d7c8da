<?php

declare(strict_types=1);

namespace Tests\App;

use App\Backups\Backups;
use App\Backups\Expiry;
use App\Backups\ScheduledBackups;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupRule;
use App\Models\BackupState;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\Site;
use App\Models\StoreDay;
use App\Text\Amount;
use App\Today\ConcernKind;
use App\Today\Concerns;
use App\Watch\Cleaner;
use Carbon\CarbonImmutable;
use Cellarium\Core\Backup\BackupShelf;
use Illuminate\Support\Facades\Queue;

/** Backups are begun as promised, and let go of as the rule of a site says; never the wrong ones. */
final class BackupRulesTest extends AppTestCase
{
    private function back(): Backup
    {
        $backup = Backup::create([
            'site_id' => $this->site->id,
            'reason' => BackupReason::OnDemand,
            'state' => BackupState::Taking,
        ]);
        app(Backups::class)->take($backup);

        return $backup->refresh();
    }

    private function rule(int ...$numbers): void
    {
        BackupRule::create($numbers + [
            'site_id' => $this->site->id,
            'hours' => 24,
            'hourly' => 0,
            'daily' => 2,
            'weekly' => 0,
            'monthly' => 0,
            'yearly' => 0,
            'zone' => 'UTC',
        ]);
    }

    public function test_a_backup_is_begun_when_it_is_due_and_not_twice_and_not_again_right_after_it_failed(): void
    {
        Queue::fake();
        $begin = fn (): array => array_map(
            static fn (Site $site): string => $site->domain,
            app(ScheduledBackups::class)->begin(),
        );
        self::assertSame(['site.example'], $begin(), 'there is none yet');
        self::assertSame([], $begin(), 'it is being taken');
        Backup::query()->update(['state' => BackupState::Failed]);
        self::assertSame([], $begin(), 'it failed just now');
        $this->travel(61)->minutes();
        self::assertSame(['site.example'], $begin());
        Backup::query()->delete();
        $this->travelBack();

        $this->rule();
        $this->back();
        self::assertSame([], $begin());
        $promised = $this->site->refresh()->backup_promised_at;
        self::assertNotNull($promised);
        self::assertEqualsWithDelta(24 * 3600, now()->diffInSeconds($promised), 60);
        $kinds = static fn (): array => array_column(Concerns::compute()->all, 'kind');
        self::assertNotContains(ConcernKind::LateBackup, $kinds());
        $this->travelTo($promised->addMinute());
        self::assertSame(['site.example'], $begin());
        self::assertContains(ConcernKind::LateBackup, $kinds());
        $this->actingAs($this->person)->get('/')->assertOk()->assertSee('Back up now');
    }

    public function test_what_undoing_a_deployment_needs_stays_for_thirty_days_whatever_is_uploaded_after_it(): void
    {
        $this->rule();
        $this->travelTo(CarbonImmutable::parse('2026-03-02 09:00'));
        $deployed = $this->deployed();
        $folder = $this->directory();
        foreach (range(1, 3) as $picture) {
            $this->travel(1)->hours();
            file_put_contents("$folder/eel.svg", "<svg><!-- $picture --></svg>");
            self::assertSame(0, $this->artisanJson(...['put', 'site.example', $folder, '--yes'])[0]);
        }
        $due = fn (): array => array_merge(
            ...array_column($this->artisanJson('expire', '--dry-run')[1]['due'], 'backups'),
        );
        self::assertNotContains($deployed->backup_id, $due());
        // Days on which backups are taken, so that the rule counts others.
        foreach (range(1, 29) as $day) {
            $this->travel(1)->days();
            $day > 26 && $this->back();
        }
        self::assertNotContains($deployed->backup_id, $due(), 'it is 29 days old');
        $this->travel(2)->days();
        self::assertContains($deployed->backup_id, $due());
        self::assertNotSame([], $due());
    }

    public function test_what_no_rule_keeps_goes_with_its_contents_and_the_rest_stays(): void
    {
        $this->rule();
        $day = CarbonImmutable::parse('2026-03-02 12:00');
        $backups = [];
        foreach (range(0, 5) as $number) {
            $this->travelTo($day->addDays($number));
            file_put_contents($this->root().'/index.html', "<h1>Day $number</h1>".str_repeat('.', $number));
            $backups[] = $this->back()->id;
        }
        $this->actingAs($this->person)
            ->post("/backups/$backups[1]/pin", ['because' => 'before the new menu'])
            ->assertRedirect("/backups?site={$this->site->id}");
        $store = StoreDay::create(['day' => now()->toDateString(), 'files' => 9, 'bytes' => 9000]);
        [$status, $said] = $this->artisanJson('expire', '--dry-run');
        self::assertSame(0, $status);
        self::assertSame([$backups[3], $backups[2], $backups[0]], $said['due'][0]['backups']);
        self::assertGreaterThan(200, $said['would_free_bytes']);
        self::assertSame($said['would_free_bytes'], (int) $store->refresh()->frees);
        $this->get('/backups/sites')->assertSee('frees '.Amount::bytes((int) $store->frees));
        self::assertSame(6, Backup::where('state', BackupState::Verified)->count(), 'nothing was touched');
        $this->get("/backups?site={$this->site->id}")
            ->assertSee('3 stay')
            ->assertSee('3 go with the next night')
            ->assertSee('before the new menu');

        $this->travel(3)->days();
        foreach (glob("$this->var/contents/[0-9a-f][0-9a-f]/*") ?: [] as $file) {
            touch($file, 1_700_000_000); // What is new is spared by the sweep.
        }
        [, $said] = $this->artisanJson('expire');
        self::assertSame(3, $said['let_go']);
        self::assertSame(0, (int) $store->refresh()->frees);
        self::assertSame(3, Backup::where('state', BackupState::Verified)->count());
        self::assertCount(3, app(BackupShelf::class)->names());
        self::assertSame(1, RecordEntry::where('action', RecordKind::BackupsExpired)->count());
        self::assertSame([], app(Expiry::class)->due());
        $this->actingAs($this->person);
        foreach (Backup::where('state', BackupState::Verified)->get() as $left) {
            $this->get("/backups/$left->id/zip")->assertOk();
        }
        self::assertStringContainsString('not removed without a person', (string) $said['waits'], 'it is half of all');
        self::assertGreaterThan(0, app(Cleaner::class)->clean(however: true)->swept->asideFiles);
        self::assertTrue(app(Cleaner::class)->clean()->isNothing(), 'what they alone held lies aside');
    }

    public function test_a_way_back_and_the_only_one_are_never_let_go(): void
    {
        $this->rule();
        BackupRule::query()->update(['daily' => 0]);
        $only = $this->back();
        self::assertTrue(app(Expiry::class)->decisions($this->site)[0]->isKept());
        $run = app(\App\Plans\Plans::class)->deploy($this->site, $this->package());
        $run->update(['state' => \App\Models\DeploymentState::Queued]);
        app(\App\Runs\Runner::class)->carryOut($run);
        $wayBack = (int) $run->refresh()->backup_id;
        $newest = $this->back();
        $kept = array_filter(
            app(Expiry::class)->decisions($this->site),
            static fn ($decision): bool => $decision->isKept(),
        );
        self::assertSame(
            [$newest->id, $wayBack],
            array_values(array_map(static fn ($decision): int => $decision->backup->id, $kept)),
        );
        self::assertNotSame($only->id, $wayBack);
    }

    public function test_a_rule_is_tried_before_it_is_saved_and_holds_for_a_group_or_for_all(): void
    {
        $this->back();
        $typed = [
            'hours' => 48,
            'quiet_from' => '23:30',
            'quiet_until' => '04:00',
            'zone' => 'Atlantic/Azores',
            'hourly' => 0,
            'daily' => 5,
            'weekly' => 2,
            'monthly' => 0,
            'yearly' => 0,
            'rehearse_days' => '',
        ];
        $this->actingAs($this->person);
        $this->get("/sites/{$this->site->id}/backup-rule")->assertOk()->assertSee('Keep daily');
        $this->get("/sites/{$this->site->id}/backup-rule?".http_build_query($typed), ['HX-Request' => 'true'])
            ->assertOk()
            ->assertSee('1 stays')
            ->assertDontSee('Keep daily');
        self::assertSame(0, BackupRule::count());

        $this->account->client->update(['group' => 'Coast']);
        $this->post("/sites/{$this->site->id}/backup-rule", ['for' => 'all'] + $typed);
        $this->post("/sites/{$this->site->id}/backup-rule", ['for' => 'group', 'hours' => 12] + $typed);
        $rule = BackupRule::forSite(Site::with('account.client', 'client')->findOrFail($this->site->id));
        self::assertSame(['Coast', 12, 23 * 60 + 30], [$rule->group, $rule->hours, $rule->quiet_from]);
        $site = $this->site->refresh();
        self::assertEqualsWithDelta(12 * 3600, now()->diffInSeconds($site->backup_promised_at), 60);
        self::assertNull($site->rehearsal_promised_at);
        $this->post("/sites/{$this->site->id}/backup-rule", ['for' => 'site', 'hours' => 6] + $typed);
        self::assertSame(6, BackupRule::forSite($this->site->fresh(['account.client', 'client']) ?? $site)->hours);
        $this->post("/sites/{$this->site->id}/backup-rule", ['for' => 'none', 'hours' => 6] + $typed);
        self::assertSame(12, BackupRule::forSite($this->site->fresh(['account.client', 'client']) ?? $site)->hours);
        self::assertSame(4, RecordEntry::where('action', RecordKind::BackupRuleSaved)->count());
        $this->post("/sites/{$this->site->id}/backup-rule", ['for' => 'site', 'zone' => 'Atlantis'] + $typed)
            ->assertSessionHasErrors('zone');
        $this->get('/backups/sites')->assertOk()->assertSee('every 12 hours')->assertSee('site.example');
    }
}
