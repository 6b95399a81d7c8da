<?php

declare(strict_types=1);

namespace Tests\App;

use App\Failure\Problem;
use App\Models\Backup;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\OwnType;
use App\Models\Package;
use App\Packages\Packages;
use App\Plans\DeploymentRequest;
use App\Plans\Plans;
use Tests\Support\StandinHost;
use Tests\Support\Zips;

/** Packages that go beside a document root instead of into it: an application around it, and mounted directories. */
final class ApplicationRootTest extends AppTestCase
{
    private const APPLICATION = [
        'composer.json' => '{"name": "pilgrim/booking", "version": "1.2.0"}',
        'vendor/autoload.php' => '<?php',
        'src/Page.php' => '<?php return "Beds are free";',
        'public/index.php' => '<?php echo require __DIR__."/../src/Page.php";',
        'public/css/a.css' => 'body{}',
        'tests/PageTest.php' => '<?php',
    ];

    protected function setUp(): void
    {
        parent::setUp();
        $this->host->stop();
        $this->host = new StandinHost(['sites' => [
            [
                'domain' => 'site.example',
                'document_root' => '/apps/booking/htdocs',
                'mounts' => ['/blog' => '/mounted/blog'],
            ],
            ['domain' => 'other.example', 'document_root' => '/www/other.example'],
        ]]);
        config([
            'cellarium.hosts_file' => "{$this->host->directory}/hosts",
            'cellarium.authorities' => "{$this->host->directory}/ca.pem",
        ]);
        (new \App\Providers\CellariumServiceProvider($this->app))->register();
        $this->account->update([
            'port' => $this->host->ftpPort,
            'secret_for' => null,
            'control_url' => "http://127.0.0.1:{$this->host->controlPort}",
        ]);
        $this->site->update([
            'base_url' => "http://site.example:{$this->host->webPort}",
            'document_root' => '/apps/booking/htdocs',
            'mounts' => [['path' => '/blog', 'directory' => '/mounted/blog']],
        ]);
        $this->account->sites()->create([
            'domain' => 'other.example',
            'base_url' => "http://other.example:{$this->host->webPort}",
            'document_root' => '/www/other.example',
            'start_pages' => ['index.html', 'index.php'],
            'kept' => [],
        ]);
        $this->site->setRelation('account', $this->account->load('client', 'sites'));
    }

    /** @param  array<string, string>  $files */
    private function packed(array $files, string $name = 'booking.zip'): Package
    {
        return app(Packages::class)->take(Zips::make($this->directory()."/$name", $files), $name);
    }

    /** @param  array<string, string>  $fields */
    private function putThere(Package $package, array $fields = []): Deployment
    {
        $this->actingAs($this->person)->post('/deployments', [
            'site' => (string) $this->site->id,
            'package' => (string) $package->id,
        ] + $fields)->assertSessionHasNoErrors();
        $deployment = Deployment::latest('id')->firstOrFail();
        $deployment->state === DeploymentState::Planned && $this->post("/deployments/$deployment->id/start");

        return $deployment->refresh();
    }

    private function live(string $path): string
    {
        return "{$this->host->home}$path";
    }

    public function test_the_public_folder_becomes_the_document_root_and_the_rest_lies_above_it(): void
    {
        file_put_contents($this->live('/apps/booking/.env'), 'SECRET=live');
        $plain = $this->putThere($this->packed(['index.html' => '<title>Soon to be booked</title>'], 'plain.zip'));
        self::assertSame(DeploymentState::Proven, $plain->state, (string) $plain->trouble);
        $done = $this->putThere($this->packed(self::APPLICATION));

        self::assertSame(DeploymentState::Proven, $done->state, (string) $done->trouble);
        self::assertFileExists($this->live('/apps/booking/htdocs/index.php'));
        self::assertFileExists($this->live('/apps/booking/src/Page.php'));
        self::assertFileDoesNotExist($this->live('/apps/booking/tests/PageTest.php'), 'it never leaves');
        self::assertFileDoesNotExist($this->live('/apps/booking/htdocs/default.htm'), 'the placeholder went');
        self::assertFileDoesNotExist($this->live('/apps/booking/htdocs/index.html'), 'ours, from before it was one');
        self::assertSame('SECRET=live', file_get_contents($this->live('/apps/booking/.env')));
        $urls = array_column($done->proofs ?? [], 'url');
        self::assertContains("{$this->site->base_url}/css/a.css", $urls);
        self::assertStringNotContainsString('src', implode(' ', $urls), 'what has no address is not asked for');
        self::assertSame(4, $done->read_back);

        $this->site->refresh();
        self::assertSame('/apps/booking', $this->site->application_root);
        $backup = Backup::findOrFail($done->backup_id);
        self::assertSame('/apps/booking', $backup->root);
        self::assertEquals($backup->verified_at, $this->site->last_backup_at);
        $this->get("/deployments/$done->id")->assertSeeInOrder(['Begins in', '/apps/booking', 'htdocs/']);
        $this->get("/sites/{$this->site->id}")->assertSee('is backed up and compared as a whole');

        // From here on a backup holds all of it.
        $this->post("/sites/{$this->site->id}/backups");
        self::assertGreaterThanOrEqual(5, Backup::latest('id')->firstOrFail()->files);

        $next = ['src/Page.php' => '<?php return "None is free";'] + array_diff_key(self::APPLICATION, [
            'public/css/a.css' => 0,
        ]);
        $again = $this->putThere($this->packed($next, 'booking-next.zip'));
        self::assertSame(DeploymentState::Proven, $again->state, (string) $again->trouble);
        self::assertFileDoesNotExist($this->live('/apps/booking/htdocs/css/a.css'), 'ours from before');

        $this->post("/deployments/$again->id/undo")->assertRedirect();
        $undo = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$undo->id/start");
        self::assertSame(DeploymentState::Proven, $undo->refresh()->state, (string) $undo->trouble);
        self::assertFileExists($this->live('/apps/booking/htdocs/css/a.css'));
        self::assertStringContainsString('Beds', (string) file_get_contents($this->live('/apps/booking/src/Page.php')));
    }

    public function test_where_other_sites_lie_beside_it_it_does_not_go(): void
    {
        $package = $this->packed(self::APPLICATION);
        $roots = ['/www/site.example' => 'other.example lies', '/htdocs' => 'everything of the account'];
        foreach ($roots as $root => $why) {
            $this->site->update(['document_root' => $root]);
            $this->site->account->load('sites');
            try {
                app(Plans::class)->orderDeploy(new DeploymentRequest($this->site, $package, reason: 'a test'));
                self::fail("it went to $root");
            } catch (Problem $problem) {
                self::assertStringContainsString($why, $problem->getMessage());
                self::assertStringContainsString('a directory of its own', $problem->getMessage());
            }
        }
    }

    public function test_a_package_goes_into_a_directory_that_is_mounted_and_leaves_the_site_alone(): void
    {
        file_put_contents($this->live('/apps/booking/htdocs/index.html'), 'the site');
        $blog = $this->packed(['index.html' => '<title>Blog</title>', 'post.html' => '<title>One</title>'], 'blog.zip');
        $done = $this->putThere($blog, ['place' => '/mounted/blog', 'reason' => 'a test']);

        self::assertSame(DeploymentState::Proven, $done->state, (string) $done->trouble);
        self::assertFileExists($this->live('/mounted/blog/post.html'));
        self::assertSame('the site', file_get_contents($this->live('/apps/booking/htdocs/index.html')));
        self::assertContains("{$this->site->base_url}/blog/post.html", array_column($done->proofs ?? [], 'url'));
        self::assertSame('/mounted/blog', $done->root);
        $this->site->refresh();
        self::assertNull($this->site->application_root);
        self::assertNull($this->site->last_backup_at, 'a backup of the mounted directory is none of the site');
        $this->get("/sites/{$this->site->id}")
            ->assertSeeInOrder(['before a deployment', '0 files', '/mounted/blog'])
            ->assertSeeInOrder(['What is proven', 'Backup', 'none yet']);

        $next = $this->packed(['index.html' => '<title>Blog</title>'], 'blog-next.zip');
        $again = $this->putThere($next, ['place' => '/mounted/blog', 'reason' => 'a test']);
        self::assertSame(DeploymentState::Proven, $again->state, (string) $again->trouble);
        self::assertFileDoesNotExist($this->live('/mounted/blog/post.html'));

        $this->post('/backups/'.$again->backup_id.'/restore')->assertRedirect();
        $back = Deployment::latest('id')->firstOrFail();
        $this->post("/deployments/$back->id/start");
        self::assertSame(DeploymentState::Proven, $back->refresh()->state, (string) $back->trouble);
        self::assertFileExists($this->live('/mounted/blog/post.html'));
        self::assertSame('the site', file_get_contents($this->live('/apps/booking/htdocs/index.html')));
    }

    public function test_a_kind_for_subfolders_goes_into_the_one_that_is_mounted_and_asks_which_of_several(): void
    {
        OwnType::create(['id' => 'guestbook', 'yaml' => implode("\n", [
            'id: guestbook',
            'label: Guest book',
            'recognise: { from: 10, markers: [{ file: guests.txt, weight: 10, says: it brings its guests }] }',
            'goes: { into: subfolder }',
            'proves: [/guests.txt]',
            '',
        ])]);
        $book = $this->packed(['index.html' => '<title>Guests</title>', 'guests.txt' => 'none'], 'guests.zip');
        self::assertSame('guestbook', $book->type);
        $done = $this->putThere($book, ['reason' => 'a test']);
        self::assertSame(DeploymentState::Proven, $done->state, (string) $done->trouble);
        self::assertFileExists($this->live('/mounted/blog/guests.txt'));
        self::assertContains("{$this->site->base_url}/blog/guests.txt", array_column($done->proofs ?? [], 'url'));

        foreach ([
            'Choose which: /mounted/blog, /mounted/shop' => ['/blog' => '/mounted/blog', '/shop' => '/mounted/shop'],
            'Choose the directory' => [],
        ] as $words => $mounts) {
            $this->site->update(['mounts' => array_map(
                static fn (string $path, string $directory): array => ['path' => $path, 'directory' => $directory],
                array_keys($mounts),
                $mounts,
            )]);
            try {
                app(Plans::class)->orderDeploy(new DeploymentRequest($this->site, $book, reason: 'a test'));
                self::fail('it went somewhere');
            } catch (Problem $problem) {
                self::assertStringContainsString($words, $problem->getMessage());
            }
        }
    }

    public function test_an_application_goes_around_a_mounted_directory_too(): void
    {
        $done = $this->putThere($this->packed(self::APPLICATION), ['place' => '/mounted/blog', 'reason' => 'a test']);
        self::assertSame(DeploymentState::Proven, $done->state, (string) $done->trouble);
        self::assertFileExists($this->live('/mounted/blog/index.php'));
        self::assertFileExists($this->live('/mounted/src/Page.php'));
        self::assertContains("{$this->site->base_url}/blog/css/a.css", array_column($done->proofs ?? [], 'url'));
        self::assertNull($this->site->refresh()->application_root, 'the site itself is none');
        self::assertFileDoesNotExist($this->live('/apps/booking/htdocs/index.php'));
    }
}
