<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\OwnType;
use App\Models\Package;
use App\Packages\Packages;
use Tests\Support\Zips;

/** The made-up system from its first installation to its update, with a theme in its place, on a host that runs it. */
final class InstalledSystemTest extends AppTestCase
{
    private const DEMO = __DIR__.'/../../demo/quaylight';

    /** @return array<string, string> */
    private static function below(string $directory): array
    {
        $files = [];
        $all = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator(self::DEMO."/$directory", \FilesystemIterator::SKIP_DOTS),
        );
        foreach ($all as $file) {
            $path = substr((string) $file, strlen(self::DEMO."/$directory/"));
            $files[$path] = (string) file_get_contents((string) $file);
        }

        return $files;
    }

    /** @param  array<string, string>  $files */
    private function packed(string $name, array $files): Package
    {
        return app(Packages::class)->take(Zips::make($this->directory()."/$name", $files), $name);
    }

    private function putThere(Package $package, string $place = ''): Deployment
    {
        $this->actingAs($this->person)->post('/deployments', [
            'site' => (string) $this->site->id,
            'package' => (string) $package->id,
            'place' => $place,
        ]);
        $deployment = Deployment::latest('id')->firstOrFail();
        $deployment->state === DeploymentState::Planned && $this->post("/deployments/$deployment->id/start");

        return $deployment->refresh();
    }

    /** @return array<string, string> */
    private static function update(): array
    {
        $next = array_diff_key(self::below('system'), ['setup.php' => 0]);
        $next['quaylight.php'] = str_replace('2.4', '2.5', $next['quaylight.php']);

        return ['update.ini' => 'x'] + $next;
    }

    private function version(string $directory): string
    {
        preg_match("~'([\\d.]+)'\)~", (string) file_get_contents($this->root()."$directory/quaylight.php"), $match);

        return $match[1] ?? '';
    }

    public function test_a_second_system_in_a_subfolder_stays_apart(): void
    {
        $blog = "{$this->site->document_root}/blog";
        $first = $this->putThere($this->packed('quay.zip', self::below('system')));
        self::assertSame(DeploymentState::Proven, $first->state, (string) $first->trouble);
        $second = $this->putThere($this->packed('quay-blog.zip', self::below('system') + ['blog.txt' => 'x']), $blog);
        self::assertSame(DeploymentState::Proven, $second->state, (string) $second->trouble);
        self::assertContains("{$this->site->base_url}/blog/sign-in.php", array_column($second->proofs ?? [], 'url'));
        self::assertSame(['2.4', '2.4'], [$this->version(''), $this->version('/blog')]);

        $update = $this->packed('quay-next.zip', self::update());
        $above = $this->putThere($update);
        self::assertSame(DeploymentState::Proven, $above->state, (string) $above->trouble);
        self::assertSame(['2.5', '2.4'], [$this->version(''), $this->version('/blog')]);
        self::assertFileExists($this->root().'/blog/setup.php');
        self::assertFileExists($this->root().'/blog/blog.txt');
        self::assertFileDoesNotExist($this->root().'/setup.php');

        $theme = $this->putThere($this->packed('shore.zip', self::below('shore')));
        self::assertStringContainsString(
            'has several of its system: /, /blog. Choose the directory',
            (string) $theme->trouble,
        );

        $below = $this->putThere($update, $blog);
        self::assertSame(DeploymentState::Proven, $below->state, (string) $below->trouble);
        self::assertSame(['2.5', '2.5'], [$this->version(''), $this->version('/blog')]);
        self::assertFileDoesNotExist($this->root().'/blog/setup.php');
        self::assertSame(['', 'blog'], array_values(array_unique(array_map(
            static fn (array $one): string => (string) preg_replace('~/?themes/.*~', '', $one['directory']),
            $this->site->refresh()->installed,
        ))));
    }

    public function test_where_the_site_lacks_what_it_needs_nothing_is_touched(): void
    {
        $yaml = (string) file_get_contents(resource_path('package-types/quaylight.yaml'));
        OwnType::create(['id' => 'quaylight', 'yaml' => str_replace("php: '8.1'", "php: '99.0'", $yaml)]);
        $package = $this->packed('quay.zip', self::below('system'));
        $before = scandir($this->root());
        // Left behind by somebody who was killed while asking.
        file_put_contents($this->root().'/cellarium-killed.php', '<?php');
        $this->site->update(['token' => "{$this->site->document_root}/cellarium-killed.php"]);
        $done = $this->putThere($package);
        self::assertSame(DeploymentState::Refused, $done->state);
        self::assertStringContainsString(
            'The site runs PHP '.PHP_VERSION.', and 99.0 or newer is needed',
            (string) $done->trouble,
        );
        self::assertSame($before, scandir($this->root()), 'and the question left nothing behind');
        self::assertNull($done->backup_id);
        $this->get("/deployments/$done->id")->assertSee('The site runs PHP');

        $lavish = str_replace('bytes: 2000000', 'bytes: 90000000', $yaml);
        OwnType::whereKey('quaylight')->update(['yaml' => $lavish]);
        $again = $this->putThere($package);
        self::assertSame(DeploymentState::Refused, $again->state);
        self::assertStringContainsString('and 90 MB beside it', (string) $again->trouble);
    }

    public function test_it_is_installed_themed_and_updated_and_keeps_what_is_its_sites_own(): void
    {
        $system = self::below('system');
        $theme = $this->packed('shore-final.zip', self::below('shore'));
        self::assertSame(['shore', '1.2'], [$theme->name, $theme->version]);
        self::assertStringContainsString(
            'quaylight, is not installed on site.example',
            (string) $this->putThere($theme)->trouble,
        );

        $installed = $this->putThere($this->packed('quay.zip', $system));
        self::assertSame(DeploymentState::Proven, $installed->state, (string) $installed->trouble);
        $own = '{"title": "Our own", "pages": {"home": ["Home", "We are here."]}}';
        foreach (['data', 'uploads'] as $writable) {
            self::assertSame(0775, fileperms($this->root()."/$writable") & 0777, $writable);
        }
        self::assertContains("{$this->site->base_url}/sign-in.php", array_column($installed->proofs ?? [], 'url'));
        self::assertNull($installed->modes_not_set);
        self::assertSame(PHP_VERSION, $this->site->refresh()->php['version'] ?? null, 'it was asked');
        file_put_contents($this->root().'/data/site.json', $own);
        mkdir($this->root().'/themes/reed');
        file_put_contents($this->root().'/themes/reed/theme.ini', "name = reed\nversion = 0.3\nfor = quaylight\n");
        mkdir($this->root().'/extensions/ours', 0755, true);
        file_put_contents(
            $this->root().'/extensions/ours/extension.ini',
            "name = ours\nversion = 0.1\nfor = quaylight\n",
        );
        file_put_contents($this->root().'/uploads/boat.jpg', 'theirs');
        file_put_contents($this->root().'/engine/ours.php', '<?php // by hand');

        $themed = $this->putThere($theme);
        self::assertSame([DeploymentState::Proven, "{$this->site->document_root}/themes/shore"], [
            $themed->state,
            $themed->directory,
        ], (string) $themed->trouble);
        self::assertFileExists($this->root().'/themes/shore/page.php');

        $again = $this->putThere($this->packed('quay-again.zip', $system + ['more.txt' => 'x']));
        self::assertStringContainsString('version 2.4 is installed there already', (string) $again->trouble);

        $next = self::update();
        $next['data/site.json'] = '{"title": "Of the package"}';
        $updated = $this->putThere($this->packed('quay-next.zip', $next));
        self::assertSame(DeploymentState::Proven, $updated->state, (string) $updated->trouble);
        self::assertStringContainsString('2.5', (string) file_get_contents($this->root().'/quaylight.php'));
        // What the old version had and the new one has not is gone, and nothing else.
        self::assertFileDoesNotExist($this->root().'/setup.php');
        self::assertFileExists($this->root().'/engine/ours.php');
        self::assertFileExists($this->root().'/themes/reed/theme.ini');
        self::assertFileExists($this->root().'/extensions/ours/extension.ini');
        self::assertSame('theirs', file_get_contents($this->root().'/uploads/boat.jpg'));
        self::assertFileExists($this->root().'/themes/shore/page.php');
        self::assertSame($own, file_get_contents($this->root().'/data/site.json'));

        self::assertEqualsCanonicalizing(['2.5', 'plain 2.4', 'reed 0.3', 'shore 1.2', 'ours 0.1'], array_map(
            static fn (array $one): string => trim("{$one['name']} {$one['version']}"),
            $this->site->refresh()->installed,
        ));
        $this->get("/sites/{$this->site->id}")->assertSeeInOrder([
            'Installed',
            'Quaylight',
            '2.5',
            'reed',
            '0.3',
            'shore',
            '1.2',
        ]);
    }
}
