<?php

declare(strict_types=1);

namespace Tests\App;

use App\Files\FileSearch;
use App\Files\FindFiles;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\Person;
use Cellarium\Core\File\FileMatches;
use Cellarium\Core\People\Role;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Work\Urgency;
use Illuminate\Support\Facades\Queue;
use Illuminate\Testing\TestResponse;

/** Files that are looked for from a folder down. */
final class FindFilesTest extends FilesTestCase
{
    /** @param  array<string, string>  $asked */
    private function find(array $asked): TestResponse
    {
        $there = $this->post("/sites/{$this->site->id}/file-searches", ['at' => $this->at()] + $asked)
            ->assertRedirect()
            ->headers->get('Location');

        return $this->get((string) $there)->assertOk();
    }

    public function test_files_are_found_by_name_size_and_time(): void
    {
        file_put_contents($this->root().'/dials/large.bin', str_repeat("\0", 60_000));
        touch($this->root().'/dials/large.bin', strtotime('2026-01-05 12:00:00'));

        $this->find(['name' => '*.HTML'])->assertSee('4 found')->assertSee('dials/brass.html')->assertSee('all of it');
        $this->find(['name' => 'dial'])->assertSee('1 found')->assertSee('dials/');
        $this->find(['smallest' => '50'])->assertSee('1 found')->assertSee('dials/large.bin');
        $this->find(['from' => '2026-01-05', 'until' => '2026-01-05'])->assertSee('1 found')->assertSee('large.bin');
        $this->find(['until' => '2026-01-04'])->assertSee('0 found')->assertSee('Nothing that was looked at');
    }

    public function test_files_are_found_by_what_stands_in_them_and_each_line_is_told(): void
    {
        file_put_contents($this->root().'/dials/old.html', "\xff\xfe".mb_convert_encoding(
            "<p>Öffnungszeiten\r\n<p>Ring the Größte Bell",
            'UTF-16LE',
            'UTF-8',
        ));
        file_put_contents($this->root().'/big.txt', str_repeat('größte bell ', 400));

        $found = $this->find(['text' => 'größte bell', 'text_up_to' => '3']);

        $found->assertSee('1 found')->assertSee('dials/old.html')->assertSee('line 2 of old.html')
            ->assertSee('<mark>Größte Bell</mark>', false)->assertSee('1 file larger than 3 KB left out');
        $this->find(['text' => 'größte bell', 'exact' => '1', 'text_up_to' => '3'])->assertSee('0 found');
    }

    public function test_a_server_that_lists_nothing_is_not_taken_for_an_empty_one(): void
    {
        $this->get($this->files);
        $this->host->faults(['listing_fault' => 'empty']);

        $this->find(['name' => '*'])
            ->assertSee('Not all of it was looked through')
            ->assertSee('were seen there before');
    }

    public function test_a_server_that_does_not_answer_is_not_one_without_files(): void
    {
        $this->host->faults(['refuse' => true]);

        $this->find(['name' => 'brass*'])->assertSee('It stopped half way')->assertSee('Not all of it');
    }

    public function test_what_is_found_is_for_who_looked_and_lines_of_secrets_for_who_may_see_them(): void
    {
        file_put_contents($this->root().'/.env', "DB_PASSWORD=bell-in-the-tower\n");
        $this->actingAs(Person::create([
            'name' => 'Wren Tideway',
            'email' => 'wren@marramtide.example',
            'password' => 'a-word-for-tests',
            'role' => Role::Helper,
        ]));

        $this->find(['text' => 'DB_PASSWORD'])->assertSee('.env')->assertSee('asswords may stand in')
            ->assertDontSee('bell-in-the-tower');
        $errand = Errand::latest('id')->firstOrFail();
        self::assertSame(ErrandState::Done, $errand->state);
        self::assertStringNotContainsString('bell-in', (string) $errand->getRawOriginal('result'));
        $this->actingAs($this->person);
        $this->get("/file-searches/$errand->id")->assertNotFound();
    }

    public function test_a_folder_elsewhere_is_none_to_look_in(): void
    {
        $this->followingRedirects()
            ->post("/sites/{$this->site->id}/file-searches", ['at' => '/', 'name' => 'x'])
            ->assertSee('not among these files');
    }

    public function test_a_search_keeps_nobody_waiting_and_is_broken_off_when_it_is_cancelled(): void
    {
        Queue::fake();
        $this->post("/sites/{$this->site->id}/file-searches", ['at' => $this->at(), 'name' => '*'])->assertRedirect();
        $errand = Errand::latest('id')->firstOrFail();
        self::assertOrdered(FindFiles::class, $errand->id, Urgency::Look);
        $errand->update(['state' => ErrandState::Running]);
        $search = FileSearch::begun($errand);
        $search->hear(new FileMatches);
        $this->post("/errands/$errand->id/cancel")->assertRedirect("/file-searches/$errand->id");

        $found = new FileMatches;
        $found->names = 7;
        $later = FileSearch::begun($errand);
        try {
            $later->hear($found);
            self::fail('It went on.');
        } catch (Cancelled) {
            $this->get("/file-searches/$errand->id")->assertSee('It was broken off')->assertSee('7 names');
        }
    }
}
