<?php

declare(strict_types=1);

namespace Tests\App;

use App\Files\FileLook;
use App\Models\ChangeState;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\DirectoryListing;
use App\Models\Errand;
use Cellarium\Core\File\PrivateName;
use Tests\Support\Builder\PersonBuilder;
use Tests\Support\Builder\SiteBuilder;

/** Pictures, kept versions, folders nobody guesses, rights of a whole site, and who may look at files at all. */
final class FileLookTest extends FilesTestCase
{
    public function test_what_comes_from_a_server_is_shown_in_a_response_that_runs_nothing(): void
    {
        $svg = '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>';
        file_put_contents($this->root().'/evil "1".svg', $svg);
        file_put_contents($this->root().'/dial.png', "\x89PNG\r\n");
        $look = "/sites/{$this->site->id}/look-file/";

        $this->get("$this->files?chosen=dial.png")->assertSee("{$look}dial.png");
        $answer = $this->get($look.rawurlencode('evil "1".svg'))->assertOk();
        self::assertSame($svg, $answer->streamedContent());
        $answer->assertHeader('Content-Security-Policy', FileLook::POLICY)
            ->assertHeader('X-Content-Type-Options', 'nosniff')
            ->assertHeader('Content-Type', 'image/svg+xml');
        self::assertStringStartsWith('attachment', (string) $answer->headers->get('Content-Disposition'));
        $plain = $this->get("{$look}dial.png")->assertOk()->assertHeader('Content-Security-Policy', FileLook::POLICY);
        self::assertStringStartsWith('inline', (string) $plain->headers->get('Content-Disposition'));
    }

    public function test_a_page_is_nothing_to_look_at_and_what_is_gone_is_told(): void
    {
        foreach (['index.html' => 'nothing that a browser shows', 'gone.png' => 'no longer there'] as $name => $words) {
            $answer = $this->getJson("/sites/{$this->site->id}/look-file/$name")->assertStatus(422);
            self::assertStringContainsString($words, (string) $answer->json('message'));
        }
        $this->get("/sites/{$this->site->id}/look-file/index.html")
            ->assertRedirect("/sites/{$this->site->id}/edit-file/index.html");
        symlink('/etc/passwd', $this->root().'/link.png');
        $this->getJson("/sites/{$this->site->id}/look-file/link.png")->assertStatus(422);
    }

    public function test_versions_of_deployments_and_backups_are_compared_and_come_back(): void
    {
        $this->deployed(['index.html' => '<h1>Dials, newer</h1>', 'prices.html' => "<p>One\n<p>Two\n"]);
        $first = Deployment::oldest('id')->firstOrFail();
        file_put_contents($this->root().'/prices.html', "<p>One\n<p>Two and a half\n");
        $page = $this->get("$this->files?look=1&chosen=prices.html")
            ->assertSee('Kept versions')
            ->assertSee("“{$first->title()}” left it");
        preg_match_all('/name="version" value="([0-9a-f]{64})"/', (string) $page->getContent(), $match);
        $old = hash('sha256', '<h1>Prices</h1>');
        self::assertEqualsCanonicalizing([$old, hash('sha256', "<p>One\n<p>Two\n")], $match[1]);

        $compare = "/sites/{$this->site->id}/compare-file/prices.html";
        $this->get("$compare?with=".hash('sha256', "<p>One\n<p>Two\n"))->assertOk()->assertSee('Two and a half');
        $this->followingRedirects()->get("$compare?with=".hash('sha256', 'of somebody else'))
            ->assertSee('no longer kept');

        $this->change('save', ['prices.html'], ['version' => $old]);
        self::assertSame(ChangeState::Done, $this->lastChange()->state, (string) $this->lastChange()->trouble);
        self::assertSame('<h1>Prices</h1>', file_get_contents($this->root().'/prices.html'));
    }

    public function test_a_backup_whose_list_is_gone_is_told_and_not_taken_for_one_without_the_file(): void
    {
        $name = \App\Models\Backup::latest('id')->firstOrFail()->name;
        file_put_contents("$this->var/backups/$name.jsonl.gz", 'bitten');

        $this->get("$this->files?chosen=index.html")->assertOk()->assertSee('is not known: the list of what lies in');
    }

    public function test_a_private_folder_has_an_address_that_nobody_guesses_and_is_closed_again(): void
    {
        $this->change('new_folder', [], ['called' => 'plans', 'private' => '1']);
        $name = basename((string) current(glob($this->root().'/plans-*') ?: ['']));

        self::assertTrue(PrivateName::isOne($name));
        $this->get("$this->files?chosen=$name")->assertSee("site.example:{$this->host->webPort}/$name/")
            ->assertSee('Nobody guesses this address');
        $this->change('rename', [$name], ['called' => 'plans', 'private' => '1']);
        self::assertDirectoryDoesNotExist($this->root()."/$name");
        self::assertCount(1, glob($this->root().'/plans-*') ?: []);
        self::assertFalse(PrivateName::isOne('plans-of-the-old-house-by-the-sea'));
    }

    public function test_rights_of_the_whole_site_are_checked_and_those_that_are_ticked_mended(): void
    {
        chmod($this->root().'/prices.html', 0666);
        chmod($this->root().'/dials', 0777);
        $there = $this->post("/sites/{$this->site->id}/rights-checks")->headers->get('Location');

        $this->get((string) $there)->assertOk()->assertSee('2 of 5 are not as they should be')
            ->assertSeeInOrder(['dials/', '777', '755', 'prices.html', '666', '644']);
        $this->post((string) $there, ['names' => ['prices.html', 'index.html']])->assertRedirect();

        $change = $this->lastChange();
        self::assertSame(ChangeState::Done, $change->state, (string) $change->trouble);
        self::assertSame(['644', '777'], array_map(
            fn (string $path): string => decoct(fileperms($this->root()."/$path") & 0777),
            ['prices.html', 'dials'],
        ));
        $this->host->faults(['refuse' => true]);
        $there = $this->post("/sites/{$this->site->id}/rights-checks")->headers->get('Location');
        $this->get((string) $there)->assertSee('The permissions are not known');
        self::assertSame(2, Errand::where('kind', 'check_rights')->count());
    }

    public function test_a_clients_person_looks_at_files_where_that_was_allowed_and_changes_nothing(): void
    {
        $this->get($this->files);
        $word = $this->word('prices.html');
        $this->actingAs(PersonBuilder::aPersonOf($this->account->client)->build());
        $this->get($this->files)->assertNotFound();
        $this->get("/sites/{$this->site->id}")->assertDontSee("$this->files?last");
        $this->site->update(['shows_files' => true]);

        $this->get("/sites/{$this->site->id}")->assertSee("$this->files?last");
        $this->get("$this->files?look=1&chosen=prices.html")->assertOk()->assertSee('dials/')->assertSee('copy address')
            ->assertDontSee('New folder')->assertDontSee('restore')->assertDontSee('"/deployments', false);
        $this->post("/sites/{$this->site->id}/file-changes", [
            'do' => 'set_aside',
            'at' => $this->at(),
            'names' => [$word],
        ])->assertNotFound();
        $this->get("/accounts/{$this->account->id}/files")->assertNotFound();
        self::assertNotNull(DirectoryListing::first());
    }

    public function test_where_another_client_has_something_among_them_files_are_not_shown(): void
    {
        $this->site->update(['shows_files' => true]);
        SiteBuilder::aSite('kelpie.example')
            ->on($this->account)
            ->from($this->site->document_root.'/kelpie')
            ->of(Client::create(['name' => 'Kelpie Boatyard', 'colour' => '#336655']))
            ->build();
        $this->actingAs(PersonBuilder::aPersonOf($this->account->client)->build());

        $this->get($this->files)->assertNotFound();
    }

    public function test_a_refusal_that_is_mended_is_proven_by_fetching_it(): void
    {
        chmod($this->root().'/prices.html', 0600);
        $this->get("$this->files?look=1");
        $ask = "/sites/{$this->site->id}/file-visitors";
        $this->post($ask, ['at' => $this->at(), 'names' => [$this->word('prices.html')]])->assertRedirect();
        $this->get("$this->files?chosen=prices.html")->assertSee('is the smallest');

        $this->change('set_modes', ['prices.html'], ['files' => '640']);
        self::assertFalse($this->lastChange()->proof['ok'] ?? null, 'it is refused still, and that is told');
        $this->change('set_modes', ['prices.html'], ['files' => '644']);

        self::assertTrue($this->lastChange()->proof['ok'] ?? null);
        $this->get($this->files)->assertSee('no longer refused');
    }

    public function test_a_saved_page_is_shown_as_visitors_get_it_and_nothing_in_it_runs(): void
    {
        $this->change('save', ['index.html'], ['version' => hash('sha256', '<h1>Dials</h1>')]);
        $change = $this->lastChange();
        self::assertSame(ChangeState::Done, $change->state, (string) $change->trouble);

        $this->get($this->files)->assertSee("/file-changes/$change->id/page");
        $answer = $this->get("/file-changes/$change->id/page")->assertOk()->assertSee('<h1>Dials</h1>', false);
        $policy = (string) $answer->headers->get('Content-Security-Policy');
        self::assertStringStartsWith("sandbox; default-src 'none'; img-src http://site.example.localhost:", $policy);
        self::assertStringNotContainsString('script', $policy);
        $answer->assertSee("<base href=\"http://site.example.localhost:{$this->host->webPort}/index.html\">", false);
        $this->change('rename', ['prices.html'], ['called' => 'fares.html']);
        $this->get("/file-changes/{$this->lastChange()->id}/page")->assertNotFound();
    }

    public function test_a_name_with_a_line_end_is_told_and_never_taken_for_another(): void
    {
        file_put_contents($this->root()."/dials/brass.html\nenamel.html", 'neither of them');
        $before = self::contents($this->root());

        $page = $this->followingRedirects()->get("$this->files/dials?look=1");
        self::assertStringNotContainsString('This folder is empty', (string) $page->getContent());
        self::assertMatchesRegularExpression('/could not be read|not understood|brass/', (string) $page->getContent());
        $there = $this->post("/sites/{$this->site->id}/file-searches", ['at' => $this->at(), 'text' => 'neither'])
            ->headers->get('Location');
        $this->get((string) $there)->assertSee('Not all of it was looked through')->assertSee('/dials');
        self::assertSame($before, self::contents($this->root()));
    }
}
