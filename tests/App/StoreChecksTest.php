<?php

declare(strict_types=1);

namespace Tests\App;

use App\Backups\Backups;
use App\Backups\StoreFigures;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\DamagedContent;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\StoreDay;
use App\Models\StoreRound;
use App\Storage\Stores;
use App\Today\ConcernKind;
use App\Today\Concerns;
use App\Watch\StoreChecks;
use Tests\Support\TestStore;

/** What is stored is read back by and by; damage is told, names what it touches, and is mended where it can be. */
final class StoreChecksTest extends AppTestCase
{
    private Backup $backup;

    protected function setUp(): void
    {
        parent::setUp();
        file_put_contents($this->root().'/tides.html', '<p>the tides of a whole year</p>');
        $this->backup = $this->back();
    }

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

    private function damage(): string
    {
        $sha256 = hash('sha256', '<p>the tides of a whole year</p>');
        TestStore::flipABit("$this->var/contents", $sha256);

        return $sha256;
    }

    public function test_damage_is_mended_from_the_live_site(): void
    {
        $sha256 = $this->damage();
        [$status, $said] = $this->artisanJson('verify', '--all');
        self::assertSame([0, true, 1], [$status, $said['ok'], $said['found_damaged']]);
        $damaged = DamagedContent::firstOrFail();
        self::assertSame($sha256, $damaged->sha256);
        self::assertSame(
            'tides.html in the backup of site.example of '.$this->backup->verified_at?->shown('j M Y H:i'),
            $damaged->where(),
        );
        self::assertStringContainsString('tides.html of site.example', (string) $damaged->mended_from);
        self::assertSame(1, RecordEntry::where('action', RecordKind::ContentsMended)->count());
        $this->actingAs($this->person)->get("/backups/{$this->backup->id}/zip")->assertOk();
        self::assertSame(0, $this->artisanJson('verify', '--all')[1]['found_damaged']);
    }

    public function test_damage_that_nobody_can_mend_is_a_concern_until_the_bytes_come_again(): void
    {
        $this->damage();
        file_put_contents($this->root().'/tides.html', '<p>other tides</p>');
        [$status, $said] = $this->artisanJson('verify', '--all');
        self::assertSame([1, false], [$status, $said['ok']]);
        self::assertStringContainsString('site.example', $said['damaged'][0]['trouble']);
        self::assertContains(ConcernKind::Damaged, array_column(Concerns::compute()->all, 'kind'));
        $this->actingAs($this->person)->get('/backups/sites')->assertSee('Damaged: tides.html in the backup of '
            .'site.example');
        $this->get("/backups/{$this->backup->id}/zip")->assertStatus(422);

        file_put_contents($this->root().'/tides.html', '<p>the tides of a whole year</p>');
        $this->back();
        self::assertSame(0, $this->artisanJson('verify')[0]);
        self::assertNotContains(ConcernKind::Damaged, array_column(Concerns::compute()->all, 'kind'));
    }

    public function test_a_backup_does_not_rely_on_what_is_damaged_but_fetches_it_again(): void
    {
        touch($this->root().'/tides.html', time() - 3600);
        $this->back();
        $second = $this->back();
        self::assertSame(0, $second->fetched_files);
        $this->damage();
        $third = $this->back();
        self::assertSame([BackupState::Verified, 1], [$third->state, $third->fetched_files]);
        $this->actingAs($this->person)->get("/backups/{$this->backup->id}/zip")->assertOk();
    }

    public function test_everything_has_been_read_within_the_days_that_are_set_also_when_a_night_is_left_out(): void
    {
        config(['cellarium.verify_days' => 4]);
        for ($number = 0; $number < 40; $number++) {
            file_put_contents($this->root()."/page-$number.html", "page $number");
        }
        $this->back();
        $checks = app(StoreChecks::class);
        $read = $checks->carryOut()->files;
        self::assertLessThan(30, $read);
        $this->travel(24)->hours();
        $read += $checks->carryOut()->files;
        $this->travel(48)->hours();
        $last = $checks->carryOut();
        self::assertNull($last->next);
        $round = StoreRound::firstOrFail();
        self::assertNotNull($round->ended_at);
        self::assertGreaterThanOrEqual(41, $round->files);
        self::assertSame($read + $last->files, $round->files);
        $this->travel(24)->hours();
        $checks->carryOut();
        self::assertSame(2, StoreRound::count(), 'and it begins anew');
    }

    public function test_a_list_that_was_cut_off_is_told_and_stands_for_no_backup(): void
    {
        $second = $this->back();
        $list = "$this->var/backups/$second->name.jsonl.gz";
        file_put_contents($list, substr((string) file_get_contents($list), 0, -20));
        [$status, $said] = $this->artisanJson('restore', (string) $second->id);
        self::assertSame(1, $status);
        self::assertStringContainsString('cut off or damaged', $said['error']);
        $this->artisanJson('verify');
        self::assertSame(BackupState::Failed, $second->refresh()->state);
        self::assertTrue($this->backup->refresh()->verified_at?->equalTo($this->site->refresh()->last_backup_at));
        self::assertSame(0, $this->artisanJson('clean')[0], 'and clearing goes on');
        $this->actingAs($this->person)->get("/backups/{$this->backup->id}/zip")->assertOk();
    }

    public function test_a_key_that_was_lost_is_said_and_nothing_is_called_damaged(): void
    {
        $file = Stores::keyFile();
        rename($file, "$file.elsewhere");
        (new \App\Providers\CellariumServiceProvider($this->app))->register();
        [$status, $said] = $this->artisanJson('store');
        self::assertSame(1, $status);
        self::assertStringContainsString('Put back the copy', $said['error']);
        self::assertSame(1, $this->artisanJson('verify', '--all')[0]);
        self::assertSame(0, DamagedContent::count());
        self::assertFileDoesNotExist($file, 'and no other is made in its place');
        rename("$file.elsewhere", $file);
        (new \App\Providers\CellariumServiceProvider($this->app))->register();
        self::assertSame(0, $this->artisanJson('store', '--rotate')[0]);
        (new \App\Providers\CellariumServiceProvider($this->app))->register();
        self::assertGreaterThan(0, $this->artisanJson('verify', '--all')[1]['sealed_anew']);
        self::assertCount(1, $this->artisanJson('store', '--forget-keys')[1]['forgotten_keys']);
        $this->actingAs($this->person)->get("/backups/{$this->backup->id}/zip")->assertOk();
    }

    public function test_growth_and_the_day_the_store_is_full_follow_from_what_it_held_on_other_days(): void
    {
        $this->travelTo('2026-11-20 12:00');
        StoreDay::query()->delete();
        StoreDay::create([
            'day' => '2026-11-10',
            'files' => 10,
            'bytes' => 1_000_000,
            'room' => 9_000_000,
        ]);
        self::assertNull((new StoreFigures)->growth, 'one day tells nothing');
        self::assertNull((new StoreFigures)->fullOn);
        StoreDay::create([
            'day' => '2026-11-20',
            'files' => 90,
            'bytes' => 3_000_000,
            'room' => 7_000_000,
        ]);
        self::assertSame(200_000, (new StoreFigures)->growth);
        self::assertSame('2026-12-25', (new StoreFigures)->fullOn?->format('Y-m-d'), '35 days of 200,000');
        StoreDay::where('day', '2026-11-20')->update(['bytes' => 900_000]);
        self::assertNull((new StoreFigures)->fullOn, 'what shrinks is never full');
        self::assertStringContainsString('shrinks', (new StoreFigures)->grows());
        StoreDay::where('day', '2026-11-20')->update(['bytes' => 3_000_000, 'room' => null]);
        self::assertNull((new StoreFigures)->fullOn, 'a store that does not say');
    }

    public function test_a_backup_is_rehearsed_and_its_age_and_failure_are_facts_of_the_site(): void
    {
        $this->actingAs($this->person)
            ->post("/sites/{$this->site->id}/rehearsals")
            ->assertRedirect("/backups?site={$this->site->id}");
        $rehearsal = $this->backup->refresh()->rehearsal ?? [];
        self::assertSame($this->backup->files, $rehearsal['files'] ?? null, (string) ($rehearsal['trouble'] ?? ''));
        self::assertGreaterThan(0, $rehearsal['pages']);
        self::assertNotNull($this->site->refresh()->rehearsed_at);
        $this->get("/sites/{$this->site->id}")->assertSee('rehearsed, ');
        $this->travelTo($this->site->rehearsal_promised_at?->addHour());
        self::assertContains(ConcernKind::LateRehearsal, array_column(Concerns::compute()->all, 'kind'));

        $this->damage();
        [$status, $said] = $this->artisanJson('rehearse', 'site.example');
        self::assertSame(1, $status);
        self::assertStringContainsString('tides.html came out with other bytes', $said['rehearsed'][0]['trouble']);
        self::assertContains(ConcernKind::Rehearsal, array_column(Concerns::compute()->all, 'kind'));
        $this->travelBack();
        $this->get("/backups?site={$this->site->id}")->assertSee('rehearsal failed');
    }
}
