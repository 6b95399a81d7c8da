<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Site;
use App\Plans\Plans;
use App\Runs\LaterProof;
use App\Storage\RunIds;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Plan\Way;
use Illuminate\Support\Facades\Artisan;

/** Ways to replace: weighed, proposed, chosen, carried out, and what becomes of them where a host has its reasons. */
final class WaysTest extends AppTestCase
{
    private const FIRST = [
        'index.html' => '<h1>First</h1>',
        'about.html' => 'about, first',
        'css/first.css' => 'first',
        'same.txt' => 'the same',
    ];

    private const SECOND = [
        'index.html' => '<h1>Second</h1>',
        'about.html' => 'about, second',
        'css/second.css' => 'second',
        'same.txt' => 'the same',
    ];

    protected function tearDown(): void
    {
        $this->host->faults([]);
        parent::tearDown();
    }

    /** The second version planned over the first, with something of theirs beside it. */
    private function planned(): Deployment
    {
        $this->deployed(self::FIRST);
        mkdir($this->root().'/uploads');
        file_put_contents($this->root().'/uploads/photo.jpg', 'theirs');
        $this->actingAs($this->person);

        return $this->plan();
    }

    private function plan(): Deployment
    {
        return app(Plans::class)->deploy($this->site, $this->package(self::SECOND));
    }

    private function choose(Deployment $run, Way $way): void
    {
        $this->post("/deployments/$run->id/settings", [
            'way' => $way->value,
            'proof_stops' => '1',
            'connections' => '',
        ]);
        $run->refresh();
    }

    private function start(Deployment $run): void
    {
        $this->post("/deployments/$run->id/start");
        $run->refresh();
    }

    public function test_somebody_may_have_it_read_back_only_and_ask_visitors_later(): void
    {
        $run = $this->planned();
        $settings = ['way' => Way::FileByFile->value, 'proof_stops' => '1', 'proof' => 'reading_back'];
        $this->post("/deployments/$run->id/settings", $settings);
        $this->get("/deployments/$run->id")->assertSee('Visitors are not asked');
        $this->post("/deployments/$run->id/settings", ['proof' => 'never'] + $settings)->assertSessionHasErrors();
        $this->start($run);
        self::assertSame([DeploymentState::Proven, []], [$run->state, $run->proofs], (string) $run->trouble);
        self::assertSame(3, $run->read_back, 'what was sent');
        self::assertNull($run->outage(), 'nobody was asked');
        self::assertNull($this->site->refresh()->live_proven_at);
        // Kept from visitors meanwhile: said, and still not live.
        $page = $this->root().'/index.html';
        rename($page, "$page.away");
        $this->post("/deployments/$run->id/prove")->assertSessionHas('trouble');
        self::assertNull($this->site->refresh()->live_proven_at);
        rename("$page.away", $page);
        // Killed before the last of it was written down: asked once more, and nothing is half proven.
        $isKilled = true;
        Site::updating(static function (Site $site) use (&$isKilled): void {
            $isKilled && $site->isDirty('live_proven_at') && throw new \LogicException('killed');
        });
        try {
            app(LaterProof::class)->prove(Site::with('account')->findOrFail($this->site->id));
            self::fail('It was not killed.');
        } catch (\LogicException) {
            $isKilled = false;
        }
        self::assertSame([], $run->refresh()->proofs);
        self::assertNull($this->site->refresh()->live_proven_at);
        $this->post("/deployments/$run->id/prove")->assertSessionHas('done');
        self::assertNotNull($this->site->refresh()->live_proven_at);
    }

    /** @return list<string> what lies beside the document root */
    private function beside(): array
    {
        return array_values(array_diff(scandir(dirname($this->root())) ?: [], ['.', '..', basename($this->root())]));
    }

    public function test_each_way_is_weighed_and_the_chosen_one_is_gone(): void
    {
        $others = $this->beside();
        $run = $this->planned();
        self::assertSame(Way::Unpack, $run->way, 'the host unpacks by itself');
        $this->get("/deployments/$run->id")->assertSeeInOrder([
            'Swap the directory',
            'Unpack at the host, then swap',
            'File by file',
            'Unpack at the host, then swap is proposed: the host unpacks by itself, so one archive goes up for 5',
            'unpacked',
        ]);
        foreach ([Way::Swap, Way::Unpack, Way::FileByFile] as $way) {
            if ($way !== Way::Swap) {
                $this->deployed(self::FIRST);
                $run = $this->plan();
            }
            $this->choose($run, $way);
            self::assertSame([$way, true], [$run->way, $run->way_chosen]);
            $this->start($run);
            self::assertSame(DeploymentState::Proven, $run->state, "$way->value: $run->trouble");
            self::assertSame('<h1>Second</h1>', file_get_contents($this->root().'/index.html'));
            self::assertFileDoesNotExist($this->root().'/css/first.css', 'set aside');
            self::assertSame('theirs', file_get_contents($this->root().'/uploads/photo.jpg'));
            self::assertSame($others, $this->beside(), "$way->value: nothing stays beside it");
            $this->post("/deployments/$run->id/undo");
            $undo = Deployment::latest('id')->firstOrFail();
            $this->choose($undo, $way);
            $this->start($undo);
            self::assertSame(DeploymentState::Proven, $undo->state, "undone by $way->value: $undo->trouble");
            self::assertSame('<h1>First</h1>', file_get_contents($this->root().'/index.html'));
            self::assertSame('first', file_get_contents($this->root().'/css/first.css'));
            self::assertFileDoesNotExist($this->root().'/css/second.css');
        }
    }

    public function test_a_directory_that_the_host_holds_is_found_out_before_anything_is_touched(): void
    {
        $run = $this->planned();
        $before = self::contents($this->root());
        $this->choose($run, Way::Swap);
        $this->host->faults(['pinned' => true]);
        $this->start($run);

        self::assertSame(DeploymentState::Planned, $run->state, (string) $run->trouble);
        self::assertSame($before, self::contents($this->root()));
        self::assertSame(Way::FileByFile, $run->way);
        $this->get("/deployments/$run->id")
            ->assertSee('the server does not rename /www/site.example')
            ->assertSee('the directory is in use');
        $this->choose($run, Way::Swap);
        self::assertSame(Way::FileByFile, $run->way, 'what is barred cannot be chosen');
        $this->start($run);
        self::assertSame(DeploymentState::Proven, $run->state, (string) $run->trouble);
    }

    public function test_a_host_that_offers_nothing_and_a_login_without_reach_bar_their_ways(): void
    {
        $this->host->faults(['no_jobs' => true]);
        $run = $this->planned();
        self::assertSame(Way::Swap, $run->way);
        $this->get("/deployments/$run->id")->assertSee('the host does not offer to unpack');

        $this->host->faults([]);
        $this->site->account->update(['control_url' => null]);
        $other = $this->site->replicate(['in_use'])->fill(['domain' => 'other.example', 'document_root' => '/www']);
        $other->save();
        $this->site->refresh();
        $run = $this->plan();
        self::assertSame(Way::FileByFile, $run->way);
        $this->get("/deployments/$run->id")
            ->assertSee("what lies beside the document root is served to visitors of $other->domain");
    }

    public function test_where_unpacking_breaks_off_the_old_site_is_whole_and_nothing_stays(): void
    {
        $others = $this->beside();
        $run = $this->planned();
        $before = self::contents($this->root());
        $this->host->faults(['jobs_fail_at' => 2]);
        $this->start($run);

        self::assertSame(DeploymentState::PutBack, $run->state);
        self::assertStringContainsString('Unpacking at the host', (string) $run->trouble);
        self::assertSame($before, self::contents($this->root()));
        self::assertSame($others, $this->beside());
    }

    public function test_what_a_swap_had_to_leave_is_let_go_of_later(): void
    {
        $others = $this->beside();
        $run = $this->planned();
        $this->choose($run, Way::Swap);
        $aside = $this->root().'/css/first.css';
        [$text, $time] = [file_get_contents($aside), filemtime($aside)];
        $this->start($run);
        $old = dirname($this->root()).'/'.TemporaryName::directory(RunIds::forDeployment($run->id), 'old');
        mkdir("$old/css", 0755, true);
        file_put_contents("$old/css/first.css", $text);
        touch("$old/css/first.css", (int) $time);
        $run->update(['left_behind' => 'The server was away.', 'left_behind_at' => now()->subHour()]);
        $this->get("/deployments/$run->id")->assertSee('The old files still lie beside the document root');

        Artisan::call('cellarium:recover');

        self::assertNull($run->refresh()->left_behind);
        self::assertSame($others, $this->beside());
    }

    public function test_the_console_goes_the_way_it_is_told_or_says_why_not(): void
    {
        $this->deployed(self::FIRST);
        $zip = $this->zip(self::SECOND);
        [$status] = $this->artisanJson('deploy', 'site.example', $zip, '--way=swap');
        self::assertSame([0, Way::Swap], [$status, Deployment::latest('id')->firstOrFail()->way]);
        $this->host->faults(['no_jobs' => true]);
        $status = Artisan::call('cellarium:deploy', ['site' => 'site.example', 'file' => $zip, '--way' => 'unpack']);
        self::assertSame(1, $status);
        self::assertStringContainsString('the host does not offer to unpack', Artisan::output());
    }
}
