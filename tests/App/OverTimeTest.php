<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Backup;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Plans\Plans;
use App\Runs\Runner;

/** A site over time: who did what is told apart from what nobody here did, and who could have. */
final class OverTimeTest extends AppTestCase
{
    private function back(): Backup
    {
        return Backup::findOrFail($this->artisanJson('backup', 'site.example')[1]['id']);
    }

    /** @return array{Backup, Backup} */
    private function lived(): array
    {
        $this->travelTo(now()->subDays(10)->startOfSecond());
        file_put_contents($this->root().'/prices.html', 'prices');
        touch($this->root().'/prices.html', now()->subDay()->getTimestamp());
        $first = $this->back();
        $this->travel(1)->days();
        $run = app(Plans::class)->deploy($this->site, $this->package());
        $run->update(['state' => DeploymentState::Queued]);
        app(Runner::class)->carryOut($run);
        self::assertSame(DeploymentState::Proven, $run->refresh()->state);
        $this->travel(1)->days();
        $user = $this->ftpUser('night');
        $user->update(['created_at' => now()]);
        $this->travel(1)->days();
        file_put_contents($this->root().'/img/.thumb.php', '<?php // left here');
        touch($this->root().'/img/.thumb.php', now()->getTimestamp());
        $this->travel(1)->days();
        $user->update(['closed_at' => now()]);
        $this->travel(1)->days();
        file_put_contents($this->root().'/prices.html', 'other prices');
        touch($this->root().'/prices.html', now()->getTimestamp());
        $this->travel(1)->days();
        $last = $this->back();
        $this->travelTo(now()->addDays(2));
        $this->actingAs($this->person);

        return [$first, $last];
    }

    public function test_a_deployment_is_not_named_for_what_somebody_outside_put_over_it(): void
    {
        $first = $this->back();
        $run = $this->deployed();
        $this->travel(1)->days();
        file_put_contents($this->root().'/index.html', '<h1>of somebody outside</h1>');
        unlink($this->root().'/css/a.css');
        // No look in between: the next one is the backup before an upload.
        $folder = $this->directory();
        file_put_contents("$folder/menu.txt", 'menu');
        $put = $this->artisanJson(...['put', 'site.example', $folder, '--yes'])[1];
        $backup = Backup::findOrFail($put['backup']['id']);
        [$status, $said] = $this->artisanJson('diff', ...['site.example', (string) $first->id, (string) $backup->id]);
        self::assertSame(0, $status);
        $by = array_column($said['differences'], null, 'path');
        self::assertSame('nobody', $by['index.html']['by'], $by['index.html']['words']);
        self::assertSame('deployed', $by['about.html']['by']);
        self::assertArrayNotHasKey('css/a.css', $by, 'it was at neither moment');
        self::assertSame(DeploymentState::Proven, $run->state);
    }

    public function test_what_differs_between_two_moments_says_who_brought_it_and_who_could_sign_in(): void
    {
        [$first, $last] = $this->lived();
        [$status, $said] = $this->artisanJson('diff', ...['site.example', (string) $first->id, (string) $last->id]);
        self::assertSame(0, $status);
        $by = array_column($said['differences'], null, 'path');
        self::assertSame(['deployed', 'added'], [$by['about.html']['by'], $by['about.html']['change']]);
        self::assertStringContainsString('stones 1.0', $by['about.html']['words']);
        self::assertSame(['nobody', 'added'], [$by['img/.thumb.php']['by'], $by['img/.thumb.php']['change']]);
        self::assertStringContainsString('night@', $by['img/.thumb.php']['words'], 'who could sign in then');
        self::assertSame(['nobody', 'changed', 6, 12], [
            $by['prices.html']['by'],
            $by['prices.html']['change'],
            $by['prices.html']['bytes_a'],
            $by['prices.html']['bytes_b'],
        ]);
        self::assertStringNotContainsString('night@', $by['prices.html']['words'], 'it was closed by then');
        self::assertSame(['added' => 1, 'changed' => 1], $last->drift['counts'] ?? null);
        self::assertNull($first->drift);

        // What was deployed, and then changed by somebody on the server, came from nobody here.
        file_put_contents($this->root().'/about.html', 'mended at the host');
        $third = $this->back();
        [, $said] = $this->artisanJson('diff', ...['site.example', (string) $first->id, (string) $third->id]);
        self::assertSame('nobody', array_column($said['differences'], 'by', 'path')['about.html']);
        $this->get("/sites/{$this->site->id}/moments/text?a=$first->id&b=$last->id&path=prices.html")
            ->assertOk()
            ->assertSee('other prices');
        $this->get("/sites/{$this->site->id}/moments/text?a=$first->id&b=$last->id&path=img/.thumb.php")
            ->assertOk()
            ->assertSee('left here');
        $runs = Deployment::count();
        $this->followingRedirects()
            ->post("/backups/$first->id/restore", ['part' => '1'])
            ->assertSee('Nothing was marked');
        self::assertSame($runs, Deployment::count());

        $this->get("/sites/{$this->site->id}/moments?a=$last->id&b=$first->id")
            ->assertOk()
            ->assertSee('came from nobody here')
            ->assertSee('6 B → 12 B')
            ->assertSee('Restore what is marked');
        [$status, $said] = $this->artisanJson('diff', ...['site.example', (string) $last->id, (string) $first->id]);
        self::assertSame(1, $status);
        self::assertStringContainsString('the earlier one as A', $said['error']);
    }

    public function test_what_a_run_finds_changed_is_nobodys_here_and_stands_between_two_looks(): void
    {
        $this->deployed(['index.html' => '<h1>One</h1>', 'prices.html' => '<h1>Prices</h1>']);
        file_put_contents($this->root().'/prices.html', '<h1>Of somebody else</h1>');
        $this->artisanJson(
            'deploy',
            'site.example',
            $this->zip(['index.html' => '<h1>Two</h1>']),
            '--on-conflict=leave',
        );
        $drift = Backup::latest('id')->firstOrFail()->drift;
        self::assertSame(['prices.html'], array_keys($drift['files'] ?? []));
        $this->actingAs($this->person)
            ->get("/sites/{$this->site->id}/over-time")
            ->assertSee('1 file changed by nobody here between');
        $this->deployed(['index.html' => '<h1>Three</h1>']);
        self::assertNull(Backup::latest('id')->firstOrFail()->drift, 'what was done here is none');
    }

    public function test_the_drawing_has_it_all_in_its_lanes_as_a_table_and_as_csv(): void
    {
        [, $last] = $this->lived();
        $page = $this->get("/sites/{$this->site->id}/over-time")
            ->assertOk()
            ->assertSee('By nobody here')
            ->assertSee('2 files changed by nobody here between')
            ->assertSee("href=\"/backups/$last->id\"", false)
            ->assertSee('stones 1.0')
            ->assertSee('night@');
        self::assertSame(2, substr_count((string) $page->getContent(), 'href="#sign-drift"')
            + substr_count((string) $page->getContent(), 'href="#sign-taken"') - 2, 'two others are backups');
        $this->get("/sites/{$this->site->id}/over-time", ['HX-Request' => 'true'])
            ->assertOk()
            ->assertDontSee('<html', false);
        $csv = (string) $this->get("/sites/{$this->site->id}/over-time.csv?days=91")->assertOk()->getContent();
        self::assertStringStartsWith("from,until,lane,what\n", $csv);
        self::assertStringContainsString('By nobody here', $csv);
        $long = $this->get("/sites/{$this->site->id}/over-time?days=1826&until=2020-01-01T00:00:00Z")->assertOk();
        $long->assertDontSee('By nobody here since');
        $this->get("/sites/{$this->site->id}/over-time?days=3")->assertSessionHasErrors('days');
    }
}
