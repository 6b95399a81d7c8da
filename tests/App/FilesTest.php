<?php

declare(strict_types=1);

namespace Tests\App;

use App\Files\CarryOutByHand;
use App\Files\FileEntry;
use App\Files\FilePlace;
use App\Files\Listings;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\DirectoryListing;
use App\Models\FileVersion;
use App\Models\RecordEntry;
use App\Models\SetAside;
use App\Watch\Cleaner;
use App\Watch\Recovery;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\Provenance;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\Locks;

/** The files of a site as they are looked at and changed by hand. */
final class FilesTest extends FilesTestCase
{
    public function test_a_folder_shows_what_lies_in_it_and_where_each_comes_from(): void
    {
        file_put_contents($this->root().'/prices.html', '<h1>Changed by somebody</h1>');
        file_put_contents($this->root().'/.secret', 'x');
        file_put_contents($this->root()."/it's 100% #1 ?.txt", 'odd');

        $this->get($this->files)
            ->assertOk()
            ->assertSeeInOrder(['dials/', 'stones 1.0', 'index.html', 'stones 1.0'])
            ->assertSeeInOrder(['prices.html', 'changed since'])
            ->assertSeeInOrder(["it's 100% #1 ?.txt", 'not from here'])
            ->assertSee('1 hidden')
            ->assertDontSee('.secret');
        $this->get("$this->files?hidden=1&look=1")->assertSee('.secret');
        $this->get("$this->files/dials?sort=name&down=1")->assertSeeInOrder(['enamel.html', 'brass.html']);
        $this->get("$this->files/dials?name=*ass*")->assertSee('brass.html')->assertDontSee('enamel.html');
    }

    public function test_what_could_not_be_read_is_neither_empty_nor_what_was_seen_before(): void
    {
        $this->followingRedirects()->get("$this->files/nowhere")->assertSee('it is not there');
        $this->get("$this->files/dials")->assertSee('brass.html');
        $this->host->faults(['refuse' => true]);
        $this->app->forgetInstance(\App\Hosting\Connections::class);

        $this->get("$this->files/dials?look=1")
            ->assertSee('could not be read just now')
            ->assertSee('What is shown was seen')
            ->assertSee('brass.html');
        mkdir($this->root().'/bare');
        $this->host->faults([]);
        $this->get("$this->files/bare")->assertSee('This folder is empty');
    }

    public function test_a_file_is_renamed_and_one_step_takes_it_back(): void
    {
        $this->change('rename', ['prices.html'], ['called' => 'fares & more.html']);

        $change = ChangeByHand::latest('id')->firstOrFail();
        self::assertSame(ChangeState::Done, $change->state, (string) $change->trouble);
        self::assertFileExists($this->root().'/fares & more.html');
        $this->get($this->files)
            ->assertSee('Rename prices.html to fares &amp; more.html', false)
            ->assertSee('done and confirmed by the server')
            ->assertSeeInOrder(['fares &amp; more.html', 'by hand here'], false);
        $this->post("/file-changes/$change->id/undo")->assertRedirect();
        self::assertFileExists($this->root().'/prices.html');
        self::assertFileDoesNotExist($this->root().'/fares & more.html');
        $this->followingRedirects()->post("/file-changes/$change->id/undo")->assertSee('There is nothing to undo');
        self::assertStringContainsString('Undo: rename', RecordEntry::latest('id')->firstOrFail()->sentence);
    }

    public function test_what_somebody_else_changed_between_looking_and_acting_is_left_alone(): void
    {
        $this->get($this->files);
        $word = $this->word('prices.html');
        file_put_contents($this->root().'/prices.html', '<h1>Theirs, and longer than it was</h1>');

        $this->post("/sites/{$this->site->id}/file-changes", [
            'do' => 'set_aside',
            'at' => $this->at(),
            'names' => [$word],
        ]);

        $change = ChangeByHand::latest('id')->firstOrFail();
        self::assertSame(ChangeState::Refused, $change->state);
        self::assertStringContainsString('changed on the server since you looked', (string) $change->trouble);
        self::assertFileExists($this->root().'/prices.html');
    }

    public function test_a_folder_is_counted_before_it_is_set_aside_and_comes_back_whole(): void
    {
        $before = self::contents($this->root());
        $this->change('set_aside', ['dials']);
        $change = ChangeByHand::latest('id')->firstOrFail();
        self::assertSame(ChangeState::Planned, $change->state, (string) $change->trouble);
        self::assertSame($before, self::contents($this->root()), 'nothing was touched yet');
        $this->get("/file-changes/$change->id")->assertSee('Start: 3')->assertSee('/dials/brass.html');

        $this->post("/file-changes/$change->id/start");

        self::assertSame(ChangeState::Done, $change->refresh()->state, (string) $change->trouble);
        self::assertDirectoryDoesNotExist($this->root().'/dials');
        $held = SetAside::where('change_id', $change->id)->pluck('path')->all();
        self::assertEqualsCanonicalizing(['dials/brass.html', 'dials/enamel.html'], $held);
        $this->get("/sites/{$this->site->id}/set-aside")->assertSee('dials/brass.html')->assertSee('Set dials aside');
        $this->get("/sites/{$this->site->id}")->assertOk()->assertSee('Set dials aside');
        $this->travel(2)->days();
        app(Cleaner::class)->clean();
        $this->actingAs($this->person);
        $this->post("/file-changes/$change->id/undo");
        self::assertSame($before, self::contents($this->root()));
        self::assertFalse(SetAside::held()->where('change_id', $change->id)->exists(), 'they are back');
    }

    public function test_a_change_that_stopped_half_way_goes_on_behind_what_is_done(): void
    {
        $this->change('set_aside', ['dials']);
        $change = ChangeByHand::latest('id')->firstOrFail();
        file_put_contents($this->root().'/dials/new.html', 'put there by somebody meanwhile');
        $this->post("/file-changes/$change->id/start");
        self::assertSame(ChangeState::Partly, $change->refresh()->state);
        self::assertSame(['.', '..', 'new.html'], scandir($this->root().'/dials'));
        $this->get("/file-changes/$change->id")->assertSee('Go on with the other')->assertSee('holds something');
        unlink($this->root().'/dials/new.html');

        $this->post("/file-changes/$change->id/start");

        self::assertSame(ChangeState::Done, $change->refresh()->state, (string) $change->trouble);
        self::assertDirectoryDoesNotExist($this->root().'/dials');
    }

    public function test_one_file_that_was_set_aside_by_hand_comes_back_from_the_list(): void
    {
        $this->change('set_aside', ['prices.html']);
        $held = SetAside::where('path', 'prices.html')->firstOrFail();

        $this->post("/set-aside/$held->id/restore")->assertRedirect();

        self::assertSame('<h1>Prices</h1>', file_get_contents($this->root().'/prices.html'));
        self::assertNotNull($held->refresh()->restored_at);
    }

    public function test_rights_are_set_of_many_and_of_what_lies_below(): void
    {
        $this->change('set_modes', ['dials', 'index.html'], [
            'files' => '640',
            'directories' => '750',
            'below' => '1',
        ]);
        $change = ChangeByHand::latest('id')->firstOrFail();
        $this->post("/file-changes/$change->id/start");
        $this->get($this->files)->assertDontSee('by hand here');

        clearstatcache();
        self::assertSame(ChangeState::Done, $change->refresh()->state, (string) $change->trouble);
        self::assertSame(0640, fileperms($this->root().'/dials/brass.html') & 0777);
        self::assertSame(0750, fileperms($this->root().'/dials') & 0777);
        $this->post("/file-changes/$change->id/undo");
        clearstatcache();
        self::assertSame(0644, fileperms($this->root().'/dials/brass.html') & 0777);
        $this->followingRedirects()->from($this->files)->post("/sites/{$this->site->id}/file-changes", [
            'do' => 'set_modes',
            'at' => $this->at(),
            'names' => [$this->word('index.html')],
            'files' => '6x4',
        ])->assertSee('three digits from 0 to 7');
    }

    public function test_what_visitors_get_is_asked_and_a_refusal_has_its_mend(): void
    {
        chmod($this->root().'/prices.html', 0600);
        file_put_contents($this->root().'/copy.sql', 'insert into');
        $this->get("$this->files?look=1");
        $this->post("/sites/{$this->site->id}/file-visitors", [
            'at' => $this->at(),
            'names' => [$this->word('prices.html'), $this->word('index.html'), $this->word('copy.sql')],
        ]);

        $this->get($this->files)
            ->assertSeeInOrder(['copy.sql', 'anyone can get it', 'index.html', 'get it', 'prices.html', 'get 403']);
        $this->get("$this->files?chosen=prices.html")->assertSee('is the smallest change')->assertSee('Mend to 644');
        $this->change('set_modes', ['prices.html'], ['files' => '644']);
        $this->post("/sites/{$this->site->id}/file-visitors", [
            'at' => $this->at(),
            'names' => [$this->word('prices.html')],
        ]);
        $this->get("$this->files?chosen=prices.html")->assertDontSee('get 403');
    }

    public function test_a_change_killed_while_it_runs_is_settled_by_another_worker(): void
    {
        $this->get($this->files);
        $change = $this->ordered('prices.html', 'moved.html');
        $change->update(['state' => ChangeState::Running]);
        // As it stands after the name was given and before that was written down.
        $change->update(['held' => ['step' => 0, 'before' => $change->steps()[0]->seen?->toArray()]]);
        rename($this->root().'/prices.html', $this->root().'/moved.html');

        app(Recovery::class)->takeUp();

        self::assertSame(ChangeState::Done, $change->refresh()->state, (string) $change->trouble);
        self::assertSame(1, FileVersion::where('change_id', $change->id)->count());
        $never = $this->ordered('index.html', 'never.html');
        $this->travel(11)->minutes();
        app(Recovery::class)->takeUp();
        self::assertSame(ChangeState::Refused, $never->refresh()->state);
        self::assertStringContainsString('before it began', (string) $never->trouble);
        $again = $this->ordered('index.html', 'start.html');
        $again->update(['state' => ChangeState::Running]);
        app(Recovery::class)->takeUp();
        self::assertSame(ChangeState::Refused, $again->refresh()->state);
        self::assertFileExists($this->root().'/index.html');
    }

    public function test_what_was_broken_off_before_it_touched_anything_is_not_taken_for_done(): void
    {
        $change = ChangeByHand::create([
            'account_id' => $this->account->id,
            'site_id' => $this->site->id,
            'action' => 'new_folder',
            'state' => ChangeState::Running,
            'directory' => $this->at(),
            'title' => 'New folder news',
            'asked' => [],
            'steps' => [FileChange::makeDirectory(RemotePath::fromString($this->at().'/news'))->toArray()],
        ]);
        mkdir($this->root().'/news'); // By somebody else, meanwhile.

        app(Recovery::class)->takeUp();

        self::assertSame(ChangeState::Refused, $change->refresh()->state);
        $this->followingRedirects()->post("/file-changes/$change->id/undo")->assertSee('There is nothing to undo');
        self::assertDirectoryExists($this->root().'/news');
    }

    public function test_a_document_root_is_not_moved_away_under_its_site(): void
    {
        $above = dirname($this->at());
        $this->get("/accounts/{$this->account->id}/files$above");

        $this->followingRedirects()->from($this->files)->post("/accounts/{$this->account->id}/file-changes", [
            'do' => 'set_aside',
            'at' => $above,
            'names' => ['directory.0../'.basename($this->at())],
        ])->assertSee('site.example is served from');

        self::assertFileExists($this->root().'/index.html');
        self::assertSame(0, ChangeByHand::count());
    }

    public function test_what_is_unclear_is_looked_at_again_and_gone_on_with(): void
    {
        $this->get($this->files);
        foreach (['prices.html' => true, 'index.html' => false] as $name => $wasDone) {
            $change = $this->ordered($name, "moved $name");
            $change->update([
                'state' => ChangeState::Unclear,
                'trouble' => 'The connection broke off.',
                'held' => ['step' => 0, 'before' => $change->steps()[0]->seen?->toArray()],
            ]);
            $wasDone && rename($this->root()."/$name", $this->root()."/moved $name");
            $this->get("/file-changes/$change->id")->assertSee('Look what became of it');

            $this->post("/file-changes/$change->id/start");

            self::assertSame(ChangeState::Done, $change->refresh()->state, (string) $change->trouble);
            self::assertFileExists($this->root()."/moved $name");
            self::assertSame(1, FileVersion::where('change_id', $change->id)->count());
        }
    }

    public function test_while_a_deployment_works_there_nothing_is_begun(): void
    {
        $this->get($this->files);
        $change = $this->ordered('prices.html', 'moved.html');
        $lock = app(Locks::class)->acquire(...CarryOutByHand::lockNames($change));
        self::assertNotNull($lock);

        app(CarryOutByHand::class)->carryOut($change);

        $lock->release();
        self::assertSame(ChangeState::Refused, $change->refresh()->state);
        self::assertStringContainsString('is at work here', (string) $change->trouble);
        self::assertFileExists($this->root().'/prices.html');
    }

    public function test_ten_thousand_names_are_drawn_piece_by_piece(): void
    {
        mkdir($this->root().'/many');
        for ($file = 1; $file <= 400; $file++) {
            touch($this->root()."/many/photo $file.jpg");
        }

        $page = $this->get("$this->files/many")->assertSee('400 files')->assertSee('photo 1.jpg');
        $page->assertDontSee('photo 399.jpg');
        preg_match('/hx-get="([^"]*from=100[^"]*)"/', (string) $page->getContent(), $match);
        $this->get(html_entity_decode($match[1]))->assertSee('photo 101.jpg')->assertDontSee('photo 100.jpg');
    }

    public function test_the_console_lists_downloads_and_sets_rights_by_the_same_rules(): void
    {
        $run = fn (string $line): array => $this->artisanJson(...explode(' ', $line));
        [$status, $listed] = $run('ls site.example dials');
        self::assertSame([0, 'brass.html', 'package', '644'], [
            $status,
            $listed['entries'][0]['name'],
            $listed['entries'][0]['comes_from'],
            $listed['entries'][0]['mode'],
        ]);
        $to = $this->directory().'/brass.html';
        [$status, $got] = $run("get site.example dials/brass.html $to");
        self::assertSame([0, hash('sha256', '<h1>Brass</h1>')], [$status, $got['sha256']]);
        [$status, $got] = $run("get site.example dials/brass.html $to");
        self::assertSame([1, false], [$status, $got['ok']], 'what is there is not overwritten');
        [$status, $set] = $run('chmod site.example 640 dials --below --folders=750');
        self::assertSame([0, 3], [$status, $set['set']]);
        clearstatcache();
        self::assertSame(0640, fileperms($this->root().'/dials/brass.html') & 0777);
        self::assertSame(1, $run('chmod site.example 640 nowhere.html')[0]);
        self::assertSame(1, $run('chmod site.example 640 dials/brass.html')[0], 'it has these rights already');
    }

    public function test_files_of_an_account_are_told_by_the_site_they_belong_to(): void
    {
        $this->get("/accounts/{$this->account->id}/files".$this->at())
            ->assertOk()
            ->assertSeeInOrder(['index.html', 'stones 1.0']);
        $place = FilePlace::ofAccount($this->account->load('sites'), trim($this->at(), '/'));
        $entries = array_column(
            Listings::entries(DirectoryListing::forPath($this->account, $place->at)) ?? [],
            null,
            'name',
        );
        self::assertSame(Provenance::Package, $entries['index.html']->provenance);
    }

    private function ordered(string $from, string $to): ChangeByHand
    {
        $entry = FileEntry::seen(RemotePath::fromString($this->at()), $this->word($from));
        self::assertNotNull($entry);

        $changes = app(\App\Files\ChangesByHand::class);
        $change = $changes->order(
            FilePlace::ofSite($this->site->load('account.sites'), ''),
            [$entry],
            new \App\Files\ChangeAsked(\App\Models\FileAction::Rename, $to),
        );
        $changes->count($change);
        $changes->start($change->refresh(), false);

        return $change->refresh();
    }
}
