<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\ChangeState;

/** Which pages would lead nowhere once files move or go, and mending them with it. */
final class TornPagesTest extends FilesTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        // Newer than what is kept here, so they are read from the host.
        file_put_contents($this->root().'/index.html', "<h1>Dials</h1>\n<a href='dials/brass.html?a=1'>Brass</a>\n");
        file_put_contents($this->root().'/dials/enamel.html', '<a href="brass.html">Brass</a><a href="../">Start</a>');
    }

    public function test_a_renamed_page_takes_its_references_along_and_one_step_takes_all_back(): void
    {
        $before = self::contents($this->root());
        $this->change('rename', ['dials'], ['called' => 'faces']);
        $change = $this->lastChange();

        self::assertSame(ChangeState::Planned, $change->state, (string) $change->trouble);
        self::assertSame($before, self::contents($this->root()), 'nothing was touched yet');
        $this->get("/file-changes/$change->id")
            ->assertSee('1 page would lead nowhere')
            ->assertSee('read from the server just now')
            ->assertSee('faces/brass.html?a=1')
            ->assertSee('Start, and mend')
            ->assertSee('Start, and leave pages broken');

        $this->post("/file-changes/$change->id/start", ['mend' => '1']);

        self::assertSame(ChangeState::Done, $change->refresh()->state, (string) $change->trouble);
        self::assertSame(
            "<h1>Dials</h1>\n<a href='faces/brass.html?a=1'>Brass</a>\n",
            file_get_contents($this->root().'/index.html'),
        );
        self::assertFileExists($this->root().'/faces/enamel.html');
        $this->post("/file-changes/$change->id/undo");
        self::assertSame($before, self::contents($this->root()));
    }

    public function test_a_page_that_leads_to_itself_comes_back_with_its_name(): void
    {
        file_put_contents($this->root().'/prices.html', '<a href="prices.html">All</a> <a href="prices.html#b">b</a>');
        touch($this->root().'/prices.html', time() - 3600);
        $before = self::contents($this->root());
        $this->change('rename', ['prices.html'], ['called' => 'all the fares.html']);
        $change = $this->lastChange();
        $this->post("/file-changes/$change->id/start", ['mend' => '1']);
        self::assertStringContainsString('all%20the%20fares.html#b', (string) file_get_contents(
            $this->root().'/all the fares.html',
        ));

        $this->post("/file-changes/$change->id/undo");

        self::assertSame(ChangeState::Done, $this->lastChange()->state, (string) $this->lastChange()->trouble);
        self::assertSame($before, self::contents($this->root()));
    }

    public function test_pages_within_what_moves_are_mended_where_they_lie_then(): void
    {
        mkdir($this->root().'/archive');
        $this->change('move', ['dials'], ['folder' => '/archive']);
        $change = $this->lastChange();

        $this->post("/file-changes/$change->id/start", ['mend' => '1']);

        self::assertSame(ChangeState::Done, $change->refresh()->state, (string) $change->trouble);
        self::assertSame(
            '<a href="brass.html">Brass</a><a href="../../">Start</a>',
            file_get_contents($this->root().'/archive/dials/enamel.html'),
        );
    }

    public function test_what_goes_is_told_and_nothing_is_offered_that_does_not_mend_it(): void
    {
        $this->get("$this->files/dials");
        $this->change('set_aside', ['dials']);
        $change = $this->lastChange();

        $this->get("/file-changes/$change->id")
            ->assertSee('1 of 1 references')
            ->assertSee('nothing mends it')
            ->assertDontSee('and mend');
        $this->post("/file-changes/$change->id/start", ['mend' => '1']);
        self::assertSame(ChangeState::Done, $change->refresh()->state, (string) $change->trouble);
    }

    public function test_where_no_page_leads_nobody_is_asked(): void
    {
        $this->change('rename', ['prices.html'], ['called' => 'fares.html']);

        self::assertSame(ChangeState::Done, $this->lastChange()->state);
        self::assertFileExists($this->root().'/fares.html');
    }

    public function test_a_server_that_lists_nothing_is_not_one_whose_pages_lead_nowhere(): void
    {
        $this->get($this->files);
        $asked = [
            'do' => 'rename',
            'at' => $this->at(),
            'names' => [$this->word('dials')],
            'called' => 'faces',
        ];
        $this->host->faults(['listing_fault' => 'empty']);
        $this->post("/sites/{$this->site->id}/file-changes", $asked)->assertRedirect();

        $change = $this->lastChange();
        self::assertSame([ChangeState::Refused, []], [$change->state, $change->steps()], 'it was never planned');
        $this->host->faults([]);
        self::assertDirectoryExists($this->root().'/dials');
    }

    public function test_a_page_that_somebody_changes_meanwhile_is_not_overwritten(): void
    {
        $this->change('rename', ['dials'], ['called' => 'faces']);
        $change = $this->lastChange();
        file_put_contents($this->root().'/index.html', 'Theirs, meanwhile');

        $this->post("/file-changes/$change->id/start", ['mend' => '1']);

        self::assertSame(ChangeState::Partly, $change->refresh()->state);
        self::assertSame('Theirs, meanwhile', file_get_contents($this->root().'/index.html'));
        self::assertStringContainsString('changed on the server', (string) $change->trouble);
    }
}
