<?php

declare(strict_types=1);

namespace Tests\App;

use App\Hosting\Connections;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\OpenAddress;
use App\Models\Package;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Packages\Packages;
use Illuminate\Support\Facades\DB;
use Quaylight\Site;
use Tests\Support\Zips;

/** A run is called live by what visitors get, on its page and wherever it is told of. */
final class WhatVisitorsGetTest extends FilesTestCase
{
    /** @param  array<string, string>  $files */
    private function uploaded(array $files): Deployment
    {
        $this->bring($files);

        return Deployment::latest('id')->firstOrFail();
    }

    private function started(Deployment $plan): Deployment
    {
        $this->post("/deployments/$plan->id/start");
        self::assertSame(DeploymentState::Proven, $plan->refresh()->state, (string) $plan->trouble);

        return $plan;
    }

    /** @param  array<string, string>  $files */
    private function zipped(string $name, array $files): Package
    {
        return app(Packages::class)->take(Zips::make($this->directory()."/$name", $files), $name);
    }

    private function planned(Package $package): Deployment
    {
        $this->post('/deployments', ['site' => (string) $this->site->id, 'package' => (string) $package->id]);

        return Deployment::latest('id')->firstOrFail();
    }

    public function test_what_changed_pages_ask_for_in_vain_is_said_with_the_state_everywhere(): void
    {
        $plan = $this->started($this->uploaded([
            'fares.html' => "<!doctype html><title>Fares</title>\n<img src=\"assets/Nowhere.png\" alt=\"\">\n"
                .'<img src="C:\photos\eel.jpg" alt="An eel"><a href="prices.html">Prices</a>',
        ]));
        $says = 'live; its pages ask for 2 files that are not there';
        self::assertSame([$says, 'soon'], [$plan->label(), $plan->tone()]);
        $this->get("/deployments/$plan->id")
            ->assertSee(ucfirst($says))
            ->assertSee('fares.html, line 2, asks for assets/Nowhere.png: it is not there (status 404)')
            ->assertSee('fares.html, line 3, asks for C:\photos\eel.jpg', false);
        $this->get('/deployments')->assertSee($says);
        $proven = RecordEntry::where('action', RecordKind::DeploymentProven)->latest('id')->firstOrFail()->sentence;
        self::assertStringContainsString('its pages ask for 2 files that are not there', $proven);
        self::assertStringNotContainsString('live and proven', $proven);

        $folder = $this->directory().'/from';
        mkdir($folder);
        file_put_contents("$folder/tours.html", '<!doctype html><title>T</title><img src="Nowhere.png" alt="">');
        [$status, $said] = $this->artisanJson('put', 'site.example', $folder, '--yes');
        self::assertSame([0, 'live; its pages ask for 1 file that is not there'], [$status, $said['says']]);
        self::assertSame('tours.html', $said['visitors']['unanswered'][0]['page']);
    }

    public function test_a_file_that_should_not_be_public_and_is_needs_a_hand_until_it_answers_no_longer(): void
    {
        $plan = $this->uploaded(['.env' => "APP=1\nDB_PASSWORD=Tide-Mill-42\n"]);
        $this->post("/deployments/$plan->id/overrule", ['paths' => ['.env'], 'reason' => 'nobody is served it']);
        $this->started($plan);
        self::assertSame(['live; 1 file is public that should not be', 'now'], [$plan->label(), $plan->tone()]);
        $this->get("/deployments/$plan->id")->assertSee("{$this->site->base_url}/.env is public");
        $this->get('/')->assertSee('A file is public')->assertSee('/.env');
        $this->get("/sites/{$this->site->id}")->assertSee('Open to everybody');
        $again = "/sites/{$this->site->id}/open-addresses";
        $this->post($again)->assertSessionHas('done', 'One address answers everybody still.');

        unlink($this->root().'/.env');
        $this->post($again)->assertSessionHas('done', 'None of them answers visitors any more.');
        $this->get('/')->assertDontSee('A file is public');
        self::assertSame(
            1,
            RecordEntry::whereIn('action', [RecordKind::AddressOpen, RecordKind::AddressClosed])
                ->where('sentence', 'like', '%/.env answers visitors no longer%')
                ->count(),
        );
    }

    public function test_a_start_page_that_visitors_would_get_instead_is_asked_about_and_can_be_set_aside(): void
    {
        $package = $this->zipped('new-1.0.zip', ['index.php' => '<?php echo "new";', 'news.html' => '<p>n']);
        // What is there was not put there from here.
        DB::table('deployments')->update(['state' => DeploymentState::PutBack]);
        $plan = $this->planned($package);
        $this->get("/deployments/$plan->id")
            ->assertSee('visitors would get this one instead of the start page that is sent')
            ->assertSee('Leave it there')
            ->assertSee('Set aside');
        $this->post("/deployments/$plan->id/start");
        self::assertSame(DeploymentState::Planned, $plan->refresh()->state, 'nothing starts unasked');
        $this->post("/deployments/$plan->id/answers", ['scope' => 'index.html', 'choice' => 'ours']);
        $this->started($plan);
        self::assertFileDoesNotExist($this->root().'/index.html');
        self::assertSame("{$this->site->base_url}/", $plan->proofs[0]['url']);
        self::assertSame('new', app(Connections::class)->web()->fetch("{$this->site->base_url}/")->head);
    }

    public function test_a_setup_page_needs_a_hand_until_it_is_done(): void
    {
        $files = [];
        foreach (['index.php', 'quaylight.php', 'setup.php', 'sign-in.php', 'engine/site.php'] as $path) {
            $files[$path] = (string) file_get_contents(dirname(__DIR__, 2)."/demo/quaylight/system/$path");
        }
        DB::table('deployments')->update(['state' => DeploymentState::PutBack]);
        $plan = $this->planned($this->zipped('quay.zip', $files));
        $this->post("/deployments/$plan->id/answers", ['scope' => '', 'choice' => 'ours']);
        $this->started($plan);
        $this->get('/')->assertSee('A setup page answers everybody')->assertSee('/setup.php');
        require_once dirname(__DIR__, 2).'/demo/quaylight/system/engine/site.php';
        self::assertSame('', (new Site($this->root()))->setUp('Quay', 'slow-tide-lantern'));
        // It is asked again by itself, and not each time.
        $this->artisan('cellarium:sweep');
        self::assertSame(1, OpenAddress::count());
        OpenAddress::query()->update(['asked_at' => now()->subHour()]);
        $this->artisan('cellarium:sweep');
        self::assertSame(0, OpenAddress::count());
    }

    public function test_a_directory_that_visitors_get_as_a_list_is_closed_by_an_empty_start_page(): void
    {
        mkdir($this->root().'/photos');
        $plan = $this->started($this->planned($this->zipped('reef-1.zip', [
            'index.html' => '<!doctype html><title>Reef</title><img src="photos/eel.svg" alt="An eel">',
            'photos/eel.svg' => '<svg xmlns="http://www.w3.org/2000/svg"/>',
        ])));
        $this->get("/deployments/$plan->id")
            ->assertSee('get a list of the files in it')
            ->assertSee('Put an empty start page there');
        $this->post("/sites/{$this->site->id}/start-page", ['at' => "{$this->at()}/photos"])->assertRedirect();
        $mend = $this->started(Deployment::latest('id')->firstOrFail());
        self::assertFileExists($this->root().'/photos/index.html');
        self::assertContains("{$this->site->base_url}/photos/", array_column($mend->proofs ?? [], 'url'));
        self::assertSame([], $mend->foundLive()?->listed);
    }

    public function test_from_when_on_visitors_who_were_there_before_see_it_is_said(): void
    {
        $plan = $this->started($this->uploaded(['prices.html' => '<h1>New prices</h1>']));
        $this->get("/deployments/$plan->id")->assertSee('Visitors who were there before see the new version');
    }
}
