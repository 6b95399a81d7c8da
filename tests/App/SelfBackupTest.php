<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Backup;
use App\Models\Site;
use App\Providers\CellariumServiceProvider;
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
    private function bringBack(string $file, string $passphrase = 'low water at noon'): array
    {
        return $this->save($file, $passphrase, '--bring-back');
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

        [$status, $said] = $this->bringBack($file);
        self::assertSame([0, true], [$status, $said['app_key_is_the_same']]);
        (new CellariumServiceProvider($this->app))->register();
        self::assertSame(0, $this->artisanJson('store')[0]);
        self::assertSame('site.example', Site::firstOrFail()->domain);
        self::assertSame($secret, \App\Models\Account::firstOrFail()->secret);
        $this->actingAs($this->person)->get("/backups/$backup->id/zip")->assertOk();
        self::assertSame(0, $this->artisanJson('verify', '--all')[0]);
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
