<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Client;
use App\Models\Deployment;
use App\Models\Package;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\Site;
use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;

/** Which site a package is for; the wrong one is asked about before anything is planned. */
final class SiteMatchesTest extends AppTestCase
{
    private function other(string $domain, ?Client $client = null): Site
    {
        $account = $this->account->replicate(['in_use'])->fill([
            'client_id' => ($client ?? Client::create(['name' => "Of $domain", 'colour' => '#123456']))->id,
            'label' => $domain,
            'login' => "login of $domain",
        ]);
        $account->save();
        $site = $this->site->replicate(['in_use'])->fill(['account_id' => $account->id, 'domain' => $domain]);
        $site->save();

        return $site;
    }

    /** @return array<string, string> */
    private static function pages(string $domain, string $more = ''): array
    {
        return [
            'index.html' => "<title>The clock at $domain</title><link rel=canonical href=https://$domain/>$more",
            'about.html' => "<title>Who winds $domain</title><link rel=canonical href=https://$domain/about.html>",
        ];
    }

    public function test_a_package_that_names_another_clients_site_is_asked_about_and_the_reason_is_recorded(): void
    {
        $clock = $this->other('tideclock.example');
        $package = $this->package(self::pages('tideclock.example'), 'clock-1.zip');
        $form = ['site' => (string) $this->site->id, 'package' => (string) $package->id];
        $this->actingAs($this->person)
            ->get("/deployments/new?site={$this->site->id}&package=$package->id")
            ->assertSeeInOrder(['Another site fits better', 'tideclock.example', 'Go on all the same, because']);
        $this->get("/packages/$package->id?site={$this->site->id}")
            ->assertSee('Another site fits better')
            ->assertSeeInOrder(['It names', 'tideclock.example', 'Of tideclock.example', '2 times']);
        $this->get("/packages/$package->id?site=$clock->id")->assertDontSee('It names');

        $this->from('/deployments/new')
            ->followingRedirects()
            ->post('/deployments', $form)
            ->assertSee('fits tideclock.example better than site.example');
        self::assertSame(0, Deployment::count());

        $this->post('/deployments', $form + ['reason' => 'They merge in June'])->assertRedirect();
        self::assertSame('They merge in June', Deployment::firstOrFail()->reason);
        self::assertSame(1, RecordEntry::where('action', RecordKind::DeploymentReasoned)->count());
        $this->get('/deployments/'.Deployment::firstOrFail()->id)->assertSee('They merge in June');

        $this->get("/deployments/new?site=$clock->id&package=$package->id")->assertDontSee('Another site fits better');
        $this->get("/deployments/new?package=$package->id")
            ->assertSeeInOrder(['tideclock.example', '2 addresses in it are of that site']);
    }

    public function test_the_site_of_another_client_is_found_with_its_file_and_line_and_is_no_news_the_next_time(): void
    {
        $this->other('tideclock.example');
        $this->site->update(['domain' => 'site.example', 'aliases' => ['stones.example']]);
        $pages = [
            'index.html' => "<title>Beds at the stones</title>\n<a href=https://www.stones.example/>Home</a>\n"
                ."<link rel=canonical href=https://site.example/>\n"
                .'<a href=https://www.tideclock.example/high>Tides</a>',
        ];
        $first = $this->package($pages, 'stones-1.zip');
        $found = static fn (Package $package): array => array_map(
            static fn (PackageFinding $one): array => [
                $one->severity->value,
                "$one->path:$one->line",
                $one->message,
            ],
            array_values(array_filter(
                $package->notes(),
                static fn (PackageFinding $one): bool => $one->code === FindingCode::ClientOther,
            )),
        );
        $words = 'names www.tideclock.example, the site of another client.';
        self::assertSame([['warn', 'index.html:4', $words]], $found($first));
        $this->actingAs($this->person)
            ->get("/packages/$first->id?site={$this->site->id}")
            ->assertSee('Names the site of another client')
            ->assertDontSee('It names');
        $next = $this->package($pages + ['more.html' => '<title>More of the stones</title>'], 'stones-2.zip');
        self::assertSame([['note', 'index.html:4', $words]], $found($next));

        [, $said] = $this->artisanJson('inspect', $this->zip($pages, 'once-more.zip'));
        self::assertContains('client_other', array_column($said['findings'], 'code'));
    }

    public function test_the_console_asks_too(): void
    {
        $this->other('tideclock.example');
        $file = $this->zip(self::pages('tideclock.example'), 'clock-1.zip');

        [$status, $said] = $this->artisanJson('deploy', 'site.example', $file);
        self::assertSame(1, $status);
        self::assertStringContainsString('fits tideclock.example better', $said['error']);
        [$status] = $this->artisanJson('deploy', 'site.example', $file, '--reason=They merge in June');
        self::assertSame(0, $status);
    }

    public function test_what_is_live_elsewhere_is_known_again_by_its_files_and_titles(): void
    {
        $files = ['index.html' => '<title>The lamp room of the light</title>'];
        for ($number = 0; $number < 9; $number++) {
            $files["p/$number.html"] = "<title>Lamp $number</title>".str_repeat("lamp $number ", 40);
        }
        $bytes = $this->zip($files, 'lamp-1.zip');
        self::assertSame(0, $this->artisanJson('deploy', 'site.example', $bytes)[0]);
        $other = $this->other('tideclock.example');
        $next = $this->package(['p/0.html' => 'changed'] + $files, 'another-name-2.zip');

        $this->actingAs($this->person)
            ->get("/deployments/new?site=$other->id&package=$next->id")
            ->assertSeeInOrder(['Another site fits better', 'site.example', '1 title and 8 files']);
        $this->get("/deployments/new?site={$this->site->id}")
            ->assertSeeInOrder(['lamp 1', 'is live there', 'another-name 2', 'titles and files as what is live']);
        // The newest of the same name comes first.
        $this->package(['new.html' => 'x'] + $files, 'lamp-2.zip');
        $this->get("/deployments/new?site={$this->site->id}")->assertSeeInOrder(['lamp 2', 'newer than 1']);
    }

    public function test_what_is_of_several_clients_is_nobodys(): void
    {
        $this->other('tideclock.example');
        $this->other('gannetrock.example');
        $package = $this->package(
            self::pages('tideclock.example', str_repeat('<a href="mailto:keeper@gannetrock.example">x</a>', 3)),
            'shared-1.zip',
        );

        $this->actingAs($this->person)
            ->get("/deployments/new?site={$this->site->id}&package=$package->id")
            ->assertDontSee('Another site fits better');
    }

    public function test_a_site_by_another_name_and_with_www_is_that_site(): void
    {
        $this->site->update(['aliases' => ['clock.example']]);
        $package = $this->package(self::pages('www.clock.example'), 'clock-1.zip');

        $this->actingAs($this->person)
            ->get("/deployments/new?package=$package->id")
            ->assertSeeInOrder(['site.example', '2 addresses in it are of that site']);
        $this->get("/deployments/new?site={$this->site->id}")->assertSee('names site.example as its own');
        self::assertSame(1, Package::count());
    }
}
