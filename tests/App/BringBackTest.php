<?php

declare(strict_types=1);

namespace Tests\App;

use App\Backups\Backups;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\SetAside;

/** A file, a folder or a choice of a backup is brought back through a plan; the rest of the site stays as it is. */
final class BringBackTest extends AppTestCase
{
    private Backup $backup;

    protected function setUp(): void
    {
        parent::setUp();
        foreach (['news/one.html', 'news/two.html', 'about.html', 'ü b.txt'] as $path) {
            @mkdir(dirname($this->root()."/$path"), recursive: true);
            file_put_contents($this->root()."/$path", pathinfo($path, PATHINFO_FILENAME));
        }
        $this->backup = Backup::create([
            'site_id' => $this->site->id,
            'reason' => BackupReason::OnDemand,
            'state' => BackupState::Taking,
        ]);
        app(Backups::class)->take($this->backup);
        $this->backup->refresh();
        file_put_contents($this->root().'/news/one.html', 'one, changed');
        unlink($this->root().'/news/two.html');
        file_put_contents($this->root().'/news/three.html', 'three');
        file_put_contents($this->root().'/about.html', 'about, changed');
        $this->actingAs($this->person);
    }

    private function texts(string $root): array
    {
        $texts = [];
        foreach (['news/one.html', 'news/two.html', 'news/three.html', 'about.html'] as $path) {
            clearstatcache();
            $texts[] = is_file("$root/$path") ? file_get_contents("$root/$path") : null;
        }

        return $texts;
    }

    public function test_a_download_that_was_broken_off_goes_on_where_it_was(): void
    {
        file_put_contents($this->root().'/large.bin', random_bytes(400_000));
        $id = $this->artisanJson('backup', 'site.example')[1]['id'];
        $this->actingAs($this->person);
        $first = $this->get("/backups/$id/zip")->assertOk()->assertHeader('Accept-Ranges', 'bytes');
        $whole = $first->streamedContent();
        $tag = (string) $first->headers->get('ETag');
        $rest = $this->get("/backups/$id/zip", ['Range' => 'bytes=150000-', 'If-Range' => $tag])->assertStatus(206);
        self::assertSame('bytes 150000-'.(strlen($whole) - 1).'/'.strlen($whole), $rest->headers->get('Content-Range'));
        self::assertSame(substr($whole, 150_000), $rest->streamedContent());
        $this->get("/backups/$id/zip", ['Range' => 'bytes=999999999-'])->assertStatus(416);
        $other = $this->get("/backups/$id/zip", ['Range' => 'bytes=150000-', 'If-Range' => '"another"'])->assertOk();
        self::assertSame($whole, $other->streamedContent());
    }

    public function test_one_file_comes_back_and_nothing_else_is_touched(): void
    {
        self::assertSame(0, $this->artisanJson('restore', (string) $this->backup->id, 'about.html')[0]);
        self::assertSame(['one, changed', null, 'three', 'about'], $this->texts($this->root()));
        $run = Deployment::latest('id')->firstOrFail();
        self::assertStringStartsWith('Restore about.html of the backup of ', $run->title());
        $backup = $run->backup;
        self::assertNotNull($backup, 'what was there is backed up first');
    }

    public function test_a_folder_is_as_it_was_and_what_was_not_in_it_is_set_aside(): void
    {
        $this->post("/backups/{$this->backup->id}/restore", ['paths' => ['news']])->assertRedirect();
        $run = Deployment::latest('id')->firstOrFail();
        self::assertSame([1, 1, 1], [
            $run->counts['added']['files'] ?? $run->counts['add']['files'],
            $run->counts['replaced']['files'] ?? $run->counts['replace']['files'],
            $run->counts['set_aside']['files'],
        ]);
        $this->post("/deployments/$run->id/start")->assertRedirect();
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);
        self::assertSame(['one', 'two', null, 'about, changed'], $this->texts($this->root()));
        self::assertSame(['news/three.html'], SetAside::held()->pluck('path')->all());
    }

    public function test_a_choice_goes_to_another_site_of_the_client_and_to_nobody_elses(): void
    {
        $other = $this->account->sites()->create([
            'domain' => 'other.example',
            'base_url' => "http://other.example:{$this->host->webPort}",
            'document_root' => '/www/other.example',
            'start_pages' => ['index.html'],
            'kept' => [],
        ]);
        $before = self::contents("{$this->host->home}/www/other.example");
        $number = (string) $this->backup->id;
        [$status] = $this->artisanJson('restore', ...[$number, 'news', '--to=other.example']);
        self::assertSame(0, $status);
        self::assertSame(['one', 'two', null, null], $this->texts("{$this->host->home}/www/other.example"));
        self::assertSame($before, array_diff_key(self::contents("{$this->host->home}/www/other.example"), [
            '/news/' => true,
            '/news/one.html' => true,
            '/news/two.html' => true,
        ]), 'what was there before stays');
        self::assertSame('one, changed', file_get_contents($this->root().'/news/one.html'));

        $other->update(['client_id' => Client::create(['name' => 'Another', 'colour' => '#112233'])->id]);
        [$status, $said] = $this->artisanJson('restore', (string) $this->backup->id, '--to=other.example');
        self::assertSame(1, $status);
        self::assertStringContainsString('belongs to another client', $said['error']);
    }

    public function test_a_backup_is_looked_at_folder_by_folder_and_a_choice_is_downloaded(): void
    {
        $this->get("/backups/{$this->backup->id}")
            ->assertOk()
            ->assertSee('news/')
            ->assertSee('2 files, 6 B')
            ->assertSee('ü b.txt');
        $this->get("/backups/{$this->backup->id}?in=news")->assertSee('two.html')->assertDontSee('about.html');
        $this->get("/backups/{$this->backup->id}?in=nowhere")->assertSee('There is no such folder in it');
        $file = "$this->var/choice.zip";
        file_put_contents($file, $this->post("/backups/{$this->backup->id}/zip", [
            'paths' => ['news/two.html', 'ü b.txt'],
        ])->assertOk()->streamedContent());
        $zip = new \ZipArchive;
        self::assertTrue($zip->open($file, \ZipArchive::CHECKCONS));
        self::assertSame(['two', 'ü b', false], [
            $zip->getFromName('news/two.html'),
            $zip->getFromName('ü b.txt'),
            $zip->getFromName('about.html'),
        ]);
        $this->post("/backups/{$this->backup->id}/restore", ['paths' => ['nothing.html']])->assertRedirect();
        self::assertStringContainsString(
            'Nothing of what was chosen',
            (string) Deployment::latest('id')->firstOrFail()->trouble,
        );
    }
}
