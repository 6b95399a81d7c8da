<?php

declare(strict_types=1);

namespace Tests\App;

use App\Backups\Witnesses;
use App\Models\Backup;
use App\Models\OwnBackup;
use App\Models\Site;
use App\Providers\CellariumServiceProvider;
use App\SelfBackup\OpenedBackup;
use App\Storage\Installation;
use App\Storage\Stores;
use App\Today\ConcernKind;
use App\Today\Concerns;
use Cellarium\Core\Storage\Mark;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;

/**
 * Cellarium itself is saved in one sealed file, and brought back on a machine that has nothing but that and the store.
 */
final class SelfBackupTest extends AppTestCase
{
    /** @return array{int, array<mixed>} */
    private function save(string $file, string $passphrase = 'low water at noon', string ...$options): array
    {
        file_put_contents("$this->var/passphrase", "$passphrase\n");

        return $this->artisanJson('self-backup', $file, ...["--passphrase-file=$this->var/passphrase", ...$options]);
    }

    /** @return array{int, array<mixed>} */
    private function bringBack(string $file, string $passphrase = 'low water at noon', string ...$options): array
    {
        return $this->save($file, $passphrase, '--bring-back', ...$options);
    }

    public function test_a_new_machine_has_everything_again(): void
    {
        self::assertSame(0, $this->artisanJson('backup', 'site.example')[0]);
        $backup = Backup::firstOrFail();
        $secret = $this->account->secret;
        $file = $this->directory().'/self';
        [$status, $said] = $this->save($file);
        self::assertSame([0, true], [$status, $said['lists'] > 0]);
        self::assertSame(0600, fileperms($file) & 0777);
        self::assertStringNotContainsString('site.example', (string) file_get_contents($file));

        [$status, $said] = $this->bringBack($file);
        self::assertSame(1, $status);
        self::assertStringContainsString('There are clients here already', $said['error']);

        // A backup that was taken since, of which the database in the file does not know.
        self::assertSame(0, $this->artisanJson('backup', 'site.example')[0]);
        $contents = $this->directory();
        exec('cp -a '.escapeshellarg("$this->var/contents").' '.escapeshellarg("$contents/contents"));
        Artisan::call('migrate:fresh', ['--force' => true]);
        self::assertSame(0, Site::count());
        $this->var = $contents;
        config(['cellarium.var' => $contents, 'cellarium.store.key_file' => "$contents/keys/contents.json"]);
        [$status, $said] = $this->bringBack($file, 'high water at noon');
        self::assertSame(1, $status);
        self::assertStringContainsString('another passphrase', $said['error']);
        self::assertSame(0, Site::count());

        $key = (string) config('app.key');
        config(['app.key' => 'base64:'.base64_encode(random_bytes(32)), 'cellarium.identity' => '']);
        [$status, $said] = $this->bringBack($file, 'low water at noon', "--settings-into=$contents/lines");
        self::assertSame([0, false], [$status, $said['app_key_is_the_same']]);
        self::assertSame($key, config('app.key'));
        self::assertTrue($this->artisanJson('record', '--verify')[1]['ok'], 'its own line as well');
        self::assertSame("APP_KEY=$key\nCELLARIUM_IDENTITY=".self::IDENTITY."\n", file_get_contents("$contents/lines"));
        Installation::return(Mark::fromIdentity(self::IDENTITY), Stores::unchecked()->objects());
        (new CellariumServiceProvider($this->app))->register();
        self::assertSame(0, $this->artisanJson('store')[0]);
        self::assertTrue(Witnesses::look()->agree(), Witnesses::look()->words());
        self::assertSame('site.example', Site::firstOrFail()->domain);
        self::assertSame($secret, \App\Models\Account::firstOrFail()->secret);
        $this->actingAs($this->person)->get("/backups/$backup->id/zip")->assertOk();
        self::assertSame(0, $this->artisanJson('verify', '--all')[0]);
    }

    public function test_each_night_it_goes_to_the_place_that_is_named_and_seven_daily_and_four_weekly_stay(): void
    {
        $place = $this->directory();
        config(['cellarium.self_backup.to' => '']);
        self::assertSame([0, null], [$this->artisanJson('self-backup', '--nightly')[0], OwnBackup::first()]);
        self::assertContains(ConcernKind::SelfBackup, array_column(Concerns::compute()->all, 'kind'), 'none is named');
        config(['cellarium.self_backup.to' => $place]);
        [$status, $said] = $this->artisanJson('self-backup', '--nightly');
        self::assertSame(1, $status);
        self::assertStringContainsString('no passphrase yet', $said['error']);
        self::assertContains(ConcernKind::Store, array_column(Concerns::compute()->all, 'kind'));

        $passphrase = $this->artisanJson('self-backup', '--new-passphrase')[1]['passphrase'];
        self::assertSame(0600, fileperms("$this->var-passphrase") & 0777);
        self::assertSame(1, $this->artisanJson('self-backup', '--new-passphrase')[0], 'it is shown once');
        // Sundays in March, then each night; the weeks of ISO 8601 end with Sunday.
        $nights = ['03-15', '03-22', '03-29', '04-03', '04-04', '04-05', '04-06', '04-07', '04-08', '04-09', '04-10'];
        foreach ($nights as $night) {
            $this->travelTo("2026-$night 02:40");
            self::assertSame(0, $this->artisanJson('self-backup', '--nightly')[0]);
        }
        $kept = OwnBackup::orderBy('id')->pluck('name')->all();
        self::assertSame($kept, array_map(basename(...), glob("$place/*") ?: []));
        self::assertSame(
            [
                '20260322',
                '20260329',
                '20260404',
                '20260405',
                '20260406',
                '20260407',
                '20260408',
                '20260409',
                '20260410',
            ],
            array_map(static fn (string $name): string => substr($name, 10, 8), $kept),
            'seven daily; and of the last four weeks the newest each, two of which are among them',
        );
        $kinds = array_column(Concerns::compute()->all, 'kind');
        self::assertNotContains(ConcernKind::SelfBackup, $kinds);
        self::assertNotContains(ConcernKind::Store, $kinds);
        foreach (glob("$place/*") ?: [] as $file) {
            self::assertStringNotContainsString($passphrase, (string) file_get_contents($file));
        }
        foreach (OpenedBackup::open("$place/$kept[8]", $passphrase)->names() as $name) {
            self::assertStringNotContainsString('passphrase', $name);
        }
    }

    public function test_it_is_brought_back_beside_each_month_and_what_fails_stands_on_today(): void
    {
        $place = $this->directory();
        config(['cellarium.self_backup.to' => $place]);
        self::assertSame(0, $this->artisanJson('backup', 'site.example')[0]);
        $this->artisanJson('self-backup', '--new-passphrase');
        self::assertNull($this->artisanJson('self-backup', '--rehearse', '--if-due')[1]['rehearsed'], 'there is none');
        $name = $this->artisanJson('self-backup', '--nightly')[1]['saved'];
        [$status, $said] = $this->artisanJson('self-backup', '--rehearse', '--if-due');
        self::assertSame([0, $name], [$status, $said['rehearsed'] ?? $said]);
        self::assertStringContainsString('1 clients, 1 sites, 1 lists of backups', $said['found']);
        self::assertSame([], DB::connection('rehearsal')->select('SHOW TABLES'));
        self::assertNull($this->artisanJson('self-backup', '--rehearse', '--if-due')[1]['rehearsed'], 'not again so '
            .'soon');

        $this->travel(31)->days();
        $whole = (string) file_get_contents("$place/$name");
        file_put_contents("$place/$name", substr($whole, 0, -40));
        self::assertSame(1, $this->artisanJson('self-backup', '--rehearse', '--if-due')[0]);
        self::assertContains(ConcernKind::Store, array_column(Concerns::compute()->all, 'kind'));
        file_put_contents("$place/$name", $whole);
        self::assertSame(0, $this->artisanJson('self-backup', '--rehearse')[0]);
        self::assertNotContains(ConcernKind::Store, array_column(Concerns::compute()->all, 'kind'));
    }

    public function test_no_place_among_the_data_itself_is_taken(): void
    {
        config(['cellarium.self_backup.to' => "$this->var/own"]);
        [$status, $said] = $this->artisanJson('self-backup', '--nightly');
        self::assertSame(1, $status);
        self::assertStringContainsString('would be lost together with it', $said['error']);
        config(['cellarium.self_backup.passphrase_file' => "$this->var/passphrase"]);
        self::assertSame(1, $this->artisanJson('self-backup', '--new-passphrase')[0]);
    }

    public function test_a_file_that_was_cut_or_altered_changes_nothing(): void
    {
        $file = $this->directory().'/self';
        self::assertSame(0, $this->save($file)[0]);
        $whole = (string) file_get_contents($file);
        DB::table('sites')->delete();
        foreach ([substr($whole, 0, -5), substr($whole, 0, 10), '', strrev($whole)] as $bytes) {
            file_put_contents($file, $bytes);
            [$status] = $this->bringBack($file);
            self::assertSame(1, $status);
        }
        self::assertSame(1, $this->save("$file-2", 'short')[0]);
        self::assertSame(0, Site::count());
    }
}
