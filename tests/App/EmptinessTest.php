<?php

declare(strict_types=1);

namespace Tests\App;

use App\Backups\Backups;
use App\Backups\Expiry;
use App\Backups\Witnesses;
use App\Models\Alarm;
use App\Models\AlarmKind;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\DamagedContent;
use App\Models\Package;
use App\Models\StoreDay;
use App\Record\Record;
use App\Today\ConcernKind;
use App\Today\Concerns;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Storage\Mark;
use Cellarium\Core\Storage\RecordEnd;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\TestStore;

/**
 * Emptiness is not believed: a disk that is not mounted, a database that is empty, another or of yesterday, and lists
 * that are gone remove nothing, are told, and say what to do.
 */
final class EmptinessTest extends AppTestCase
{
    private Backup $backup;

    protected function setUp(): void
    {
        parent::setUp();
        for ($number = 0; $number < 30; $number++) {
            file_put_contents($this->root()."/page-$number.html", "<p>page $number</p>");
        }
        $this->backup = $this->back();
        $this->package();
        foreach (glob("$this->var/contents/[0-9a-f][0-9a-f]/*") ?: [] as $file) {
            touch($file, 1_700_000_000);
        }
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

    /** @return list<string> */
    private function stored(): array
    {
        return glob("$this->var/contents/[0-9a-f][0-9a-f]/*") ?: [];
    }

    /** @return iterable<string, array{\Closure(self): void, string}> what is done to it, and what is said */
    public static function emptiness(): iterable
    {
        yield 'the disk of the lists is not mounted' => [
            static fn (self $test) => rename("$test->var/backups", "$test->var/elsewhere")
                && mkdir("$test->var/backups"),
            'does not have the mark',
        ];
        yield 'the disk of the contents is not mounted' => [
            static fn (self $test) => rename("$test->var/contents", "$test->var/elsewhere"),
            'does not have the mark',
        ];
        yield 'the disk of another installation is mounted' => [
            static fn (self $test) => Mark::generate()->putInto("$test->var/backups"),
            'the mark of another installation',
        ];
        yield 'the lists are gone' => [
            static fn (self $test) => array_map(unlink(...), glob("$test->var/backups/*.gz") ?: []),
            'Lists are missing',
        ];
        yield 'one list is gone' => [
            static function (self $test): void {
                $test->back();
                unlink("$test->var/backups/{$test->backup->name}.jsonl.gz");
            },
            'Lists are missing',
        ];
        yield 'the database knows no backups' => [
            static fn () => Backup::query()->delete(),
            'does not know the lists',
        ];
        yield 'the database is empty' => [
            static function (): void {
                DB::statement('SET FOREIGN_KEY_CHECKS = 0');
                foreach (['backups', 'packages', 'package_manifests', 'record_ends'] as $table) {
                    DB::table($table)->truncate();
                }
                DB::statement('TRUNCATE record_entries');
                DB::statement('SET FOREIGN_KEY_CHECKS = 1');
            },
            'does not know the lists',
        ];
        yield 'the database is of yesterday, with the same backups' => [
            static function (): void {
                $end = (array) DB::table('record_ends')->first();
                Record::write(\App\Models\RecordKind::Cleaned, 'A line of today');
                DB::unprepared('DROP TRIGGER record_keeps_delete');
                DB::table('record_entries')->where('number', '>', $end['number'])->delete();
                DB::unprepared(
                    'CREATE TRIGGER record_keeps_delete BEFORE delete ON record_entries FOR EACH ROW '
                        ."SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The record is append-only.'",
                );
                DB::table('record_ends')->update(['number' => $end['number'], 'seal' => $end['seal']]);
            },
            'which this database does not have',
        ];
    }

    /** @param  \Closure(self): mixed  $do */
    #[DataProvider('emptiness')]
    public function test_nothing_is_removed(\Closure $do, string $words): void
    {
        $this->travel(3)->days();
        $do($this);
        $before = [$this->stored(), glob("$this->var/backups/*.gz"), Package::kept()->count()];
        foreach ([['clean'], ['clean', '--however-many', "--as={$this->person->email}"], ['expire']] as $command) {
            [$status, $said] = $this->artisanJson(...$command);
            self::assertSame(1, $status, implode(' ', $command));
            self::assertStringContainsString($words, $said['error']);
        }
        self::assertSame($before, [$this->stored(), glob("$this->var/backups/*.gz"), Package::kept()->count()]);
        self::assertSame([], glob("$this->var/contents/aside/*") ?: []);
        self::assertSame(0, Backup::where('state', BackupState::Expired)->count());
    }

    public function test_a_database_that_is_another_does_not_take_the_place_of_the_one_that_was_noted(): void
    {
        $noted = RecordEnd::in("$this->var/backups");
        self::assertNotNull($noted);
        (new RecordEnd(1, str_repeat('a', 64)))->noteIn("$this->var/backups");
        self::assertEquals($noted, RecordEnd::in("$this->var/backups"));
        Record::write(\App\Models\RecordKind::Cleaned, 'The next line of the one that was');
        self::assertSame($noted->number + 1, RecordEnd::in("$this->var/backups")?->number);
    }

    public function test_what_does_not_agree_stands_on_today_until_a_person_has_accepted_it(): void
    {
        $second = $this->back();
        unlink("$this->var/backups/{$this->backup->name}.jsonl.gz");
        Backup::whereKey($second->id)->delete();
        self::assertSame(1, $this->artisanJson('clean')[0]);
        self::assertContains(ConcernKind::Store, array_column(Concerns::compute()->all, 'kind'));
        $this->actingAs($this->person)->get('/backups/sites')
            ->assertSee('Database and lists do not agree')
            ->assertSee((string) $this->backup->name)
            ->assertSee((string) $second->name);
        [$status, $said] = $this->artisanJson('witnesses');
        self::assertSame([1, [$this->backup->name], [$second->name]], [$status, $said['missing'], $said['unknown']]);

        self::assertSame(0, $this->artisanJson('witnesses', '--accept')[0]);

        self::assertSame(BackupState::Failed, $this->backup->refresh()->state);
        self::assertFileExists("$this->var/backups/aside/$second->name.jsonl.gz");
        self::assertSame(0, $this->artisanJson('clean', '--however-many', "--as={$this->person->email}")[0]);
        self::assertNotContains(ConcernKind::Store, array_column(Concerns::compute()->all, 'kind'));
    }

    public function test_what_a_kill_leaves_between_list_and_row_is_settled_by_itself(): void
    {
        $shelf = app(BackupShelf::class);
        $manifest = $shelf->manifest((string) $this->backup->name);
        // Killed once the list was kept; once the row named it; and once the row was let go of.
        $left = $shelf->keep($manifest, now());
        rename(
            "$this->var/backups/{$this->backup->name}.jsonl.gz",
            "$this->var/backups/{$this->backup->name}.unclaimed.jsonl.gz",
        );
        $expired = $this->back();
        $expired->update(['state' => BackupState::Expired]);
        $gone = $this->back();
        $gone->update(['state' => BackupState::Expired]);
        $shelf->moveAside((string) $gone->name);

        self::assertTrue(Witnesses::look()->agree(), Witnesses::look()->words());
        self::assertSame(0, $this->artisanJson('clean')[0]);

        self::assertSame([$this->backup->name], $shelf->names());
        self::assertSame([$left], $shelf->unclaimed(), 'its run may still go on');
        touch("$this->var/backups/$left.unclaimed.jsonl.gz", time() - 8 * 86400);
        self::assertSame(0, $this->artisanJson('clean')[0]);
        self::assertSame([], $shelf->unclaimed());
        self::assertSame(3, count(glob("$this->var/backups/aside/*.gz") ?: []));
    }

    public function test_more_than_a_tenth_at_once_waits_for_a_person_on_the_page_of_the_store(): void
    {
        $this->travel(3)->days();
        Package::query()->update(['let_go_at' => now()]);
        $before = $this->stored();
        [$status, $said] = $this->artisanJson('clean');
        self::assertSame(1, $status);
        self::assertStringContainsString('needs', str_replace('not removed without', 'needs', $said['error']));
        self::assertSame($before, $this->stored());
        self::assertSame(1, $this->artisanJson('clean', '--however-many')[0], 'by nobody');
        self::assertSame($before, $this->stored());
        $this->actingAs($this->person)->get('/backups/sites')->assertSee('Move all of it aside');
        $this->post('/store/sweep')->assertRedirect('/backups/sites');
        self::assertLessThan(count($before), count($this->stored()));
        $aside = count(glob("$this->var/contents/aside/*") ?: []);
        self::assertSame(count($before), count($this->stored()) + $aside, 'all of it is still here');
        $this->get('/backups/sites')->assertDontSee('Move all of it aside')->assertSee('lie aside');
        $this->post('/store/aside/empty');
        self::assertSame([], glob("$this->var/contents/aside/*"));
    }

    public function test_a_list_that_cannot_be_read_is_told_by_name_and_stops_only_what_depends_on_it(): void
    {
        $this->travel(3)->days();
        $second = $this->back();
        file_put_contents($this->root().'/page-1.html', 'changed since');
        $list = "$this->var/backups/{$this->backup->name}.jsonl.gz";
        file_put_contents($list, substr((string) file_get_contents($list), 0, -12));
        $package = (string) DB::table('package_manifests')->value('manifest');
        DB::table('package_manifests')->update(['manifest' => substr($package, 0, -4)]);
        [$status] = $this->artisanJson('clean');
        self::assertSame(0, $status);
        $words = Alarm::where('kind', AlarmKind::Unreadable)->value('words');
        self::assertStringContainsString((string) $this->backup->name, $words);
        self::assertStringContainsString('the package stones 1.0', $words);
        self::assertSame(0, $this->artisanJson('expire', '--dry-run')[0]);
        $this->artisanJson('verify');
        self::assertSame(BackupState::Failed, $this->backup->refresh()->state);
        self::assertSame(BackupState::Verified, $second->refresh()->state);
        $this->actingAs($this->person)->get("/backups/$second->id/zip")->assertOk();
    }

    public function test_reading_nothing_and_a_count_that_fell_are_alarms(): void
    {
        self::assertSame(0, $this->artisanJson('verify', '--all')[0]);
        self::assertSame([], Alarm::pluck('kind')->all());
        $lost = hash('sha256', '<p>page 7</p>');
        unlink(TestStore::file("$this->var/contents", $lost));
        file_put_contents($this->root().'/page-7.html', 'another by now');
        $this->travel(1)->days();
        [$status] = $this->artisanJson('verify');
        self::assertSame(1, $status);
        self::assertSame([AlarmKind::CountFell], Alarm::pluck('kind')->all());
        self::assertMatchesRegularExpression(
            '/^page-7\.html in the backup of site\.example of \d+ \w{3} \d{4} \d\d:\d\d$/',
            DamagedContent::open()->where('sha256', $lost)->firstOrFail()->where(),
        );
        file_put_contents($this->root().'/page-7.html', '<p>page 7</p>');
        $this->back();
        $this->travel(1)->days();
        self::assertSame(0, $this->artisanJson('verify')[0]);
        self::assertSame([], Alarm::pluck('kind')->all(), 'it is there again');

        exec('rm -rf '.escapeshellarg("$this->var/contents").'/[0-9a-f][0-9a-f]');
        $this->travel(1)->days();
        $this->artisanJson('verify', '--all');
        self::assertEqualsCanonicalizing([AlarmKind::CountFell, AlarmKind::NothingRead], Alarm::pluck('kind')->all());
        self::assertContains(ConcernKind::Store, array_column(Concerns::compute()->all, 'kind'));
    }

    public function test_what_a_removal_explains_is_no_alarm(): void
    {
        $this->artisanJson('verify', '--all');
        $this->travel(3)->days();
        Package::query()->update(['let_go_at' => now()]);
        self::assertGreaterThan(
            0,
            $this->artisanJson('clean', '--however-many', "--as={$this->person->email}")[1]['aside_files'],
        );
        $before = StoreDay::orderByDesc('day')->firstOrFail()->files;
        self::assertSame(0, $this->artisanJson('verify', '--all')[0]);
        self::assertLessThan($before, StoreDay::orderByDesc('day')->firstOrFail()->files);
        self::assertSame([], Alarm::pluck('kind')->all());
        self::assertSame([], app(Expiry::class)->due());
    }
}
