<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Client;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\Errand;
use App\Models\Site;
use Tests\Support\Builder\SiteBuilder;

/** Files that go to another site of the same client. */
final class MoveElsewhereTest extends FilesTestCase
{
    private Site $other;

    private string $there;

    protected function setUp(): void
    {
        parent::setUp();
        $this->there = dirname($this->root()).'/other.example';
        file_put_contents($this->there.'/index.html', '<h1>Other</h1>');
        $this->other = SiteBuilder::aSite('other.example')
            ->on($this->account)
            ->from('/www/other.example')
            ->served($this->host->webPort)
            ->build();
    }

    public function test_what_is_moved_becomes_a_plan_there_and_the_originals_go_once_it_is_proven(): void
    {
        $this->get($this->files)->assertSee('other.example');
        chmod($this->root().'/prices.html', 0640);
        $this->change('move', ['dials', 'prices.html'], ['to_site' => (string) $this->other->id, 'folder' => '/old']);
        $plan = Deployment::latest('id')->firstOrFail();

        self::assertSame(
            [DeploymentKind::Files, DeploymentState::Planned, $this->other->id],
            [$plan->kind, $plan->state, $plan->site_id],
            (string) $plan->trouble,
        );
        $this->get("/deployments/$plan->id")->assertDontSee('Set the originals aside');
        $this->post("/deployments/$plan->id/start");

        self::assertSame(DeploymentState::Proven, $plan->refresh()->state, (string) $plan->trouble);
        self::assertSame('<h1>Brass</h1>', file_get_contents($this->there.'/old/dials/brass.html'));
        self::assertFileExists($this->root().'/dials/brass.html', 'the originals stay until somebody lets them go');
        $this->get("/deployments/$plan->id")->assertSee('Set the originals aside')->assertSee($this->at());
    }

    public function test_a_site_of_another_client_is_none_to_copy_to(): void
    {
        $this->other->update(['client_id' => Client::create([
            'name' => 'Whimbrel Post',
            'colour' => '#336655',
        ])->id]);

        $this->get($this->files)->assertDontSee('other.example');
        $this->followingRedirects()->post("/sites/{$this->site->id}/file-changes", [
            'do' => 'copy',
            'at' => $this->at(),
            'names' => [$this->word('prices.html')],
            'to_site' => $this->other->id,
        ])->assertSee('none of the same client');
        self::assertSame(0, Errand::where('kind', 'copy_elsewhere')->count());
    }

    public function test_what_cannot_be_fetched_makes_no_plan(): void
    {
        $this->get($this->files);
        $word = $this->word('prices.html');
        unlink($this->root().'/prices.html');
        $plans = Deployment::count();

        $this->followingRedirects()->post("/sites/{$this->site->id}/file-changes", [
            'do' => 'copy',
            'at' => $this->at(),
            'names' => [$word],
            'to_site' => $this->other->id,
        ])->assertSee('it is not there');
        self::assertSame($plans, Deployment::count());
    }
}
