<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Closing;
use App\Models\Site;
use App\Sites\ProvenFact;
use App\Sites\SiteView;

/** The page of a site says what is live, what is proven and how old each proof is, and who can touch it. */
final class SitePageTest extends AppTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->person);
    }

    private function siteView(): SiteView
    {
        $site = Site::with('account.client', 'account.sites', 'account.ftpUsers')->findOrFail($this->site->id);

        return new SiteView($site);
    }

    /** @return array<string, string> tone by name */
    private function tones(): array
    {
        $facts = $this->siteView()->proven();

        return array_combine(
            array_map(static fn (ProvenFact $fact): string => $fact->name, $facts),
            array_map(static fn (ProvenFact $fact): string => $fact->tone, $facts),
        );
    }

    public function test_before_anything_was_done_every_proof_is_missing_and_said_to_be(): void
    {
        self::assertSame(
            [
                'Document root' => 'plain',
                'Live pages' => 'plain',
                'PHP' => 'plain',
                'Backup' => 'plain',
                'Bringing back' => 'plain',
                'Reach' => 'proven',
            ],
            $this->tones(),
        );
        $this->get("/sites/{$this->site->id}")
            ->assertOk()
            ->assertSee('not looked at yet')
            ->assertSee('Nothing was deployed to it from here')
            ->assertSee('There is no backup yet')
            ->assertSee('none: nothing was replaced from here yet');
    }

    public function test_after_a_deployment_it_says_what_is_live_since_when_and_on_what_it_goes_back(): void
    {
        $run = $this->deployed();

        $this->get("/sites/{$this->site->id}")
            ->assertOk()
            ->assertSee("href=\"/deployments/$run->id\"", false)
            ->assertSee('put there '.$run->ended_at->format('j M Y H:i'))
            ->assertSee("one step, onto backup number $run->backup_id")
            ->assertSee('Undo stones 1.0');
        self::assertSame(['proven', 'proven'], [$this->tones()['Live pages'], $this->tones()['Backup']]);
    }

    public function test_a_backup_older_than_promised_is_told_apart_from_one_that_is_not(): void
    {
        $this->deployed();
        $this->travel(8)->days(); // A week is promised where nobody said otherwise.

        self::assertSame('soon', $this->tones()['Backup']);
    }

    public function test_who_can_touch_it_is_computed_from_directories_and_ends_with_the_user(): void
    {
        mkdir("{$this->root()}/img");
        $this->ftpUser('pictures', '/www/site.example/img', Closing::AtTime, now()->addDay()->setTime(18, 0));
        $this->ftpUser('other', '/www/other.example');
        $ended = $this->ftpUser('ended', '/www/site.example');
        app(\App\FtpUsers\FtpUsers::class)->close($ended->load('account.client', 'account.sites'), 'by hand');

        $touchers = $this->siteView()->touchers;

        self::assertSame(
            [
                ['harbour', 'whole account', 'always'],
                ['pictures@site.example', 'only /img', 'until '.now()->addDay()->format('j M Y').' 18:00'],
            ],
            array_map(static fn ($one): array => [$one->login, $one->extent, $one->until], $touchers),
        );
    }

    public function test_settings_are_saved_with_notes_and_lead_back_to_the_page(): void
    {
        $this->followingRedirects()
            ->post("/sites/{$this->site->id}", [
                'domain' => 'site.example',
                'base_url' => $this->site->base_url,
                'document_root' => '/www/site.example',
                'start_pages' => 'index.html',
                'notes' => 'The winter page goes live on the first frost.',
            ])
            ->assertOk()
            ->assertSee('The settings of site.example are saved.')
            ->assertSee('The winter page goes live on the first frost.');
    }

    public function test_finder_jar_and_concern_lead_to_it(): void
    {
        $here = 'href="/sites/'.$this->site->id.'"';

        $this->get('/find?q=site')->assertSee($here, false);
        $this->get('/shelves')->assertSee($here, false);
        $this->get('/')->assertSee("<a {$here}><bdi>site.example", false);
        $this->get('/accounts')->assertSee($here, false);
    }
}
