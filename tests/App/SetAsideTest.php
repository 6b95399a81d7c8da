<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\SetAside;

/** What a deployment takes out is listed on its site, comes back file by file, and is let go when its time is over. */
final class SetAsideTest extends AppTestCase
{
    private const FIRST = [
        'index.html' => 'one',
        'old/a.html' => 'the old a',
        'old/b.html' => 'the old b',
    ];

    protected function setUp(): void
    {
        parent::setUp();
        $this->deployed(self::FIRST);
        $this->deployed(['index.html' => 'two']);
        $this->actingAs($this->person);
    }

    public function test_one_file_comes_back_and_the_others_stay_held(): void
    {
        self::assertFileDoesNotExist($this->root().'/old/a.html');
        $this->get("/sites/{$this->site->id}")->assertSeeInOrder(['Set aside', 'old/b.html', 'old/a.html', 'Restore']);
        $held = SetAside::where('path', 'old/a.html')->firstOrFail();
        $this->post("/set-aside/$held->id/restore")->assertRedirect();
        $run = Deployment::latest('id')->firstOrFail();
        self::assertSame(DeploymentState::Planned, $run->state, (string) $run->trouble);
        self::assertSame(1, $run->counts['added']['files']);
        $this->post("/deployments/$run->id/start");
        self::assertSame(DeploymentState::Proven, $run->refresh()->state, (string) $run->trouble);
        self::assertSame('the old a', file_get_contents($this->root().'/old/a.html'));
        self::assertFileDoesNotExist($this->root().'/old/b.html');
        $this->get("/sites/{$this->site->id}/set-aside")->assertSee('old/b.html')->assertDontSee('old/a.html');
        $this->assertRefused($held);
    }

    private function assertRefused(SetAside $held): void
    {
        $this->followingRedirects()
            ->from("/sites/{$this->site->id}")
            ->post("/set-aside/$held->id/restore")
            ->assertSee('is no longer held');
    }

    public function test_what_lies_there_again_is_not_overwritten(): void
    {
        file_put_contents($this->root().'/old/a.html', 'somebody wrote it anew');
        $held = SetAside::where('path', 'old/a.html')->firstOrFail();
        $this->post("/set-aside/$held->id/restore");
        $run = Deployment::latest('id')->firstOrFail();
        self::assertSame(DeploymentState::NotPlanned, $run->state);
        self::assertStringContainsString('Something lies again', (string) $run->trouble);
        self::assertSame('somebody wrote it anew', file_get_contents($this->root().'/old/a.html'));
    }

    public function test_it_is_let_go_when_its_time_is_over_and_not_before(): void
    {
        $held = SetAside::where('path', 'old/a.html')->firstOrFail();
        $this->travel(29)->days();
        $this->actingAs($this->person);
        $this->get("/sites/{$this->site->id}/set-aside")->assertSee('old/a.html');
        $this->travel(2)->days();
        $this->actingAs($this->person);
        $this->get("/sites/{$this->site->id}/set-aside")->assertDontSee('old/a.html')->assertSee('Nothing is held');
        $this->assertRefused($held);
    }
}
