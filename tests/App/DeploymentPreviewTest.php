<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Package;
use App\Models\Site;
use App\Packages\Packages;
use Tests\Support\Zips;

/** How a site would be with a package on it, before anything is planned and without asking its server. */
final class DeploymentPreviewTest extends AppTestCase
{
    private const SYSTEM = [
        'index.php' => '<?php require "quaylight.php";',
        'quaylight.php' => "<?php\ndefine('QUAYLIGHT_VERSION', '2.4');\n",
        'engine/site.php' => '<?php',
        'setup.php' => '<?php',
    ];

    /** @param  array<string, string>  $files */
    private function packed(string $name, array $files): Package
    {
        return app(Packages::class)->take(Zips::make($this->directory()."/$name", $files), $name);
    }

    /** @param  array<string, string>  $files  that lie on the server, and were seen by a backup */
    private function seen(array $files): void
    {
        foreach ($files as $path => $text) {
            @mkdir(dirname("{$this->root()}/$path"), 0755, true);
            file_put_contents("{$this->root()}/$path", $text);
        }
        $this->actingAs($this->person)->post("/sites/{$this->site->id}/backups");
        // Whoever asks the server now fails.
        $this->account->update(['port' => 1]);
    }

    public function test_the_tree_afterwards_and_its_addresses_are_shown_with_what_the_site_keeps(): void
    {
        $this->seen([
            'uploads/boat.jpg' => 'x',
            'old.sql' => 'x',
            'notes/index.html' => 'theirs',
            'about.html' => 'old',
        ]);
        $package = $this->package();

        $page = $this->get("/packages/$package->id?site={$this->site->id}");
        $page->assertSeeInOrder([
            'The tree afterwards',
            '/www/site.example',
            'notes/index.html',
            'kept',
            'uploads/boat.jpg',
            'about.html',
            'replaced',
            'index.html',
            'added',
            'old.sql',
        ]);
        $page->assertSeeInOrder([
            'As it would land',
            'With what lay there',
            '/',
            'index.html',
            '/old.sql',
            'anyone could fetch it',
            '/notes/',
            'notes/index.html',
        ]);
    }

    public function test_names_from_archives_and_servers_are_no_markup(): void
    {
        $this->seen(['<i>theirs<i>.html' => 'x', 'index.html' => 'x']);
        $this->site->update(['installed' => [
            [
                'type' => 'quaylight',
                'directory' => '<u>blog',
                'name' => null,
                'version' => '<s>2.4',
            ],
        ]]);
        $package = $this->package(['<b>ours<b>.html' => 'x'] + self::SITE);
        $this->get("/packages/$package->id?site={$this->site->id}")
            ->assertSee('<b>ours<b>.html')
            ->assertSee('<i>theirs<i>.html')
            ->assertDontSee('<b>ours', false)
            ->assertDontSee('<i>theirs', false);
        $system = $this->packed('quaylight-3.0.zip', self::SYSTEM);
        $this->get("/packages/$system->id")
            ->assertSee('<s>2.4')
            ->assertDontSee('<s>2.4', false)
            ->assertDontSee('<u>blog', false);
    }

    public function test_what_nobody_has_looked_at_is_not_taken_for_empty(): void
    {
        $package = $this->package();
        $this->actingAs($this->person)
            ->get("/packages/$package->id?site={$this->site->id}")
            ->assertSee('Nobody has looked at what lies on site.example yet')
            ->assertSeeInOrder(['Where it goes', '/www/site.example'])
            ->assertDontSee('The tree afterwards');
    }

    public function test_a_theme_lands_where_its_system_is_and_nowhere_else(): void
    {
        $theme = $this->packed('shore-1.2.zip', [
            'theme.ini' => "name = shore\nversion = 1.2\nfor = quaylight\n",
            'page.php' => '<?php',
        ]);
        $this->actingAs($this->person)
            ->get("/packages/$theme->id")
            ->assertSee('It goes into themes/shore/ of Quaylight.');
        $this->get("/packages/$theme->id?site={$this->site->id}")
            ->assertSee('quaylight, is not installed on site.example')
            ->assertDontSee('The tree afterwards');

        $this->seen(array_combine(
            array_map(static fn (string $path): string => "blog/$path", array_keys(self::SYSTEM)),
            self::SYSTEM,
        ) + ['index.html' => 'a site of its own']);
        $this->site->update(['installed' => [
            [
                'type' => 'quaylight',
                'directory' => 'blog',
                'name' => null,
                'version' => '2.4',
            ],
        ]]);
        $this->get("/packages/$theme->id?site={$this->site->id}")
            ->assertSeeInOrder([
                'The tree afterwards',
                '/www/site.example/blog/themes/shore',
                'blog/themes/shore/page.php',
            ])
            ->assertSeeInOrder([
                'As it would land',
                '/',
                'index.html',
                '/blog/',
                'blog/index.php',
            ]);
    }

    public function test_sites_that_lag_behind_by_what_is_installed_are_told_on_the_package(): void
    {
        $installed = static fn (string $version): array => [
            [
                'type' => 'quaylight',
                'directory' => '',
                'name' => null,
                'version' => $version,
            ],
            [
                'type' => 'quaylight-theme',
                'directory' => 'themes/reed',
                'name' => 'reed',
                'version' => '0.3',
            ],
        ];
        $this->site->update(['installed' => $installed('2.10')]);
        foreach (['behind.example' => '2.4', 'even.example' => '2.9'] as $domain => $version) {
            $other = $this->site->replicate(['in_use']);
            $other->fill(['domain' => $domain, 'installed' => $installed($version)])->save();
        }
        $update = $this->packed('quaylight-2.9.zip', [
            'quaylight.php' => "<?php\ndefine('QUAYLIGHT_VERSION', '2.9');\n",
            'update.ini' => 'x',
        ] + array_diff_key(self::SYSTEM, ['setup.php' => 0]));
        self::assertSame('quaylight-update', $update->type);
        $this->actingAs($this->person)->get("/packages/$update->id")->assertSeeInOrder([
            'Installed',
            '1 behind',
            'behind.example',
            '2.4',
            'Deploy',
            'even.example',
            '2.9',
            'site.example',
            '2.10',
        ]);
        $theme = $this->packed('reed-0.4.zip', [
            'theme.ini' => "name = reed\nversion = 0.4\nfor = quaylight\n",
            'page.php' => '<?php',
        ]);
        $this->get("/packages/$theme->id")->assertSee('3 behind');
        $this->get("/deployments/new?package=$theme->id")->assertSeeInOrder([
            'behind.example',
            'Quaylight 2.4 is installed',
            'site.example',
            'Quaylight 2.10 is installed',
        ]);
        $this->get("/deployments/new?package=$update->id")
            ->assertSee('Quaylight 2.4 is installed')
            ->assertDontSee('Quaylight 2.9 is installed');
        $other = $this->packed('shore-0.4.zip', [
            'theme.ini' => "name = shore\nversion = 0.4\nfor = quaylight\n",
            'page.php' => '<?php //',
        ]);
        $this->get("/packages/$other->id")->assertDontSee('an older version is installed there');
        self::assertSame(3, Site::count());

        // A new deployment offers what suits what is installed, and nothing that a plan would refuse.
        $whole = $this->packed('quaylight-3.0.zip', [
            'quaylight.php' => "<?php\ndefine('QUAYLIGHT_VERSION', '3.0');\n",
        ] + self::SYSTEM);
        self::assertSame('quaylight', $whole->type);
        $behind = Site::where('domain', 'behind.example')->firstOrFail();
        $this->get("/deployments/new?site=$behind->id")->assertSeeInOrder([
            'shore 0.4',
            'is a Quaylight theme, and its system is installed',
            'reed 0.4',
            'newer than 0.3, which is installed',
            'quaylight 2.9',
            'newer than 2.4, which is installed',
        ])->assertDontSee('class="strong" href="/deployments/new?site='.$behind->id.'&amp;package='.$whole->id, false);
        $this->get("/deployments/new?site={$this->site->id}")->assertDontSee('newer than 2.10');
    }
}
