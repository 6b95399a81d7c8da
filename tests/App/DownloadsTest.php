<?php

declare(strict_types=1);

namespace Tests\App;

use App\Files\Download;
use App\Hosting\HostShare;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\RecordEntry;
use App\Storage\Spool;
use App\Work\TaskName;
use Cellarium\Core\File\WorkingCopy;
use Illuminate\Testing\TestResponse;
use Tests\Support\Builder\PersonBuilder;

/** Files of a server as an archive: whole or told, sent while it comes, gone on with where it broke off. */
final class DownloadsTest extends FilesTestCase
{
    private const NAME = '0123456789abcdef0123456789abcdef';

    public function test_a_folder_and_a_file_are_one_archive_that_remembers_what_it_held(): void
    {
        chmod($this->root().'/dials/brass.html', 0640);
        symlink('brass.html', $this->root().'/dials/link.html');
        $zip = $this->downloaded(['dials', 'index.html'], true);
        self::assertSame('<h1>Brass</h1>', $zip->getFromName('dials/brass.html'));
        self::assertFalse($zip->getFromName('dials/link.html'));
        $copy = WorkingCopy::fromText((string) $zip->getFromName(WorkingCopy::NAME));
        self::assertSame(
            [hash('sha256', '<h1>Brass</h1>'), 0640],
            [$copy->manifest()->get('dials/brass.html')?->sha256, $copy->manifest()->get('dials/brass.html')?->mode],
        );
        self::assertSame(3, count($copy->manifest()->files()));
        $said = RecordEntry::latest('id')->firstOrFail();
        self::assertStringContainsString('downloaded to be worked on', $said->sentence);
        self::assertSame($this->person->id, $said->person_id);
    }

    public function test_its_length_is_known_before_its_first_byte(): void
    {
        $this->downloaded(['dials', 'index.html'], true);
        $errand = Errand::latest('id')->firstOrFail();
        // Both are told by themselves: the one reckoned before anything came, the other of what came.
        $reckoned = null;
        Errand::updating(static function (Errand $errand) use (&$reckoned): void {
            $errand->state === ErrandState::Running && $reckoned = $errand->result['size'];
        });
        $this->downloaded(['dials', 'index.html'], true);
        self::assertSame($errand->result['size'] ?? null, $reckoned);
    }

    public function test_who_sees_no_passwords_gets_what_holds_none_and_a_list_of_what_was_left_out(): void
    {
        file_put_contents($this->root().'/dials/.env', 'DB_PASSWORD=the-Password-4711');
        $this->actingAs(PersonBuilder::aHelper()->build());
        $zip = $this->downloaded(['dials'], true);
        self::assertFalse($zip->getFromName('dials/.env'));
        self::assertSame('<h1>Brass</h1>', $zip->getFromName('dials/brass.html'));
        self::assertStringContainsString('dials/.env', (string) $zip->getFromName('not-in-this-archive.txt'));
    }

    public function test_what_cannot_be_read_to_its_end_is_no_download(): void
    {
        $this->get("$this->files?look=1");
        unlink($this->root().'/prices.html');
        $answer = $this->post("/sites/{$this->site->id}/file-downloads", [
            'at' => $this->at(),
            'names' => [$this->word('dials'), $this->word('prices.html')],
        ]);
        $answer->assertRedirect()->assertSessionHas('trouble');
        self::assertStringContainsString('prices.html is no file, or no longer there', (string) session('trouble'));
        self::assertSame([], glob("$this->var/spool/*"));
    }

    public function test_one_that_fails_half_way_is_told_and_leaves_nothing_here(): void
    {
        Errand::updating(function (Errand $errand): void {
            // Its size is told to the page: it is listed, and not fetched yet.
            $errand->isDirty('result') && @unlink($this->root().'/dials/enamel.html');
        });
        $this->get("$this->files?look=1");
        $this->post("/sites/{$this->site->id}/file-downloads", [
            'at' => $this->at(),
            'names' => [$this->word('dials')],
        ])->assertRedirect($this->files);
        self::assertStringContainsString('enamel.html', (string) session('trouble'));
        self::assertSame(ErrandState::Failed, Errand::latest('id')->firstOrFail()->state);
        self::assertSame([], glob("$this->var/spool/*"));
    }

    public function test_it_waits_on_a_page_until_its_length_is_known_and_begins_there_by_itself(): void
    {
        $errand = $this->ordered();
        $this->get("/downloads/$errand->id")->assertRedirect("/errands/$errand->id");
        $this->get("/errands/$errand->id")->assertSee('Preparing the download')->assertDontSee('data-begins');
        $this->begun($errand, '0123456789', 20);
        $this->get("/errands/$errand->id", ['HX-Request' => 'true'])
            ->assertSee("data-begins=\"/downloads/$errand->id\"", false)
            ->assertDontSee('hx-trigger');
    }

    public function test_it_is_sent_while_it_comes_and_a_part_of_it_from_where_it_broke_off(): void
    {
        $errand = $this->ordered();
        $part = $this->begun($errand, '0123456789', 20);
        $answer = $this->get("/downloads/$errand->id", ['Range' => 'bytes=5-'])->assertStatus(206);
        $answer->assertHeader('Content-Range', 'bytes 5-19/20')->assertHeader('Content-Length', '15');
        self::assertTrue(app(Spool::class)->isRead(self::NAME));
        $got = $this->taken($answer, static function () use ($part, $errand): void {
            file_put_contents($part, 'abcdefghij', FILE_APPEND);
            $errand->update(['state' => ErrandState::Done]);
        });
        self::assertSame('56789abcdefghij', $got);
        self::assertFalse(app(Spool::class)->isRead(self::NAME));
    }

    public function test_of_another_archive_no_part_is_sent(): void
    {
        $errand = $this->ordered();
        $this->begun($errand, str_repeat('x', 20), 20);
        $all = $this->get("/downloads/$errand->id", ['Range' => 'bytes=5-', 'If-Range' => '"another"']);
        self::assertSame(20, strlen($this->taken($all->assertOk())));
        $part = $this->get("/downloads/$errand->id", ['Range' => 'bytes=5-', 'If-Range' => '"'.self::NAME.'"']);
        self::assertSame(15, strlen($this->taken($part->assertStatus(206))));
        $this->get("/downloads/$errand->id", ['Range' => 'bytes=20-'])->assertStatus(416);
    }

    public function test_one_whose_rest_does_not_come_never_looks_whole(): void
    {
        $errand = $this->ordered();
        $this->begun($errand, '0123456789', 20);
        $answer = $this->get("/downloads/$errand->id")->assertHeader('Content-Length', '20');
        $this->expectExceptionMessage('ended after 10 bytes');
        $this->taken($answer, static fn () => $errand->update(['state' => ErrandState::Failed]));
    }

    public function test_it_is_its_persons_alone(): void
    {
        $errand = $this->ordered();
        $this->begun($errand, str_repeat('x', 20), 20);
        $this->actingAs(PersonBuilder::aHelper()->build())->get("/downloads/$errand->id")->assertNotFound();
    }

    public function test_where_one_host_has_its_share_of_those_that_are_sent_another_waits_until_it_is_whole(): void
    {
        $errand = $this->ordered();
        $this->begun($errand, str_repeat('x', 20), 20);
        $held = array_map(fn (): ?array => HostShare::ofTransfers()->take($this->account->host), range(1, 4));
        self::assertNotContains(null, $held);
        $waits = "/errands/$errand->id?whole=1";
        $this->get("/downloads/$errand->id")->assertRedirect($waits);
        $this->get($waits)->assertSee('Preparing the download')->assertSee($waits, false);
        unset($held);
        $sent = fn (): int => strlen($this->taken($this->get("/downloads/$errand->id")->assertOk()));
        self::assertSame([20, 20, 20, 20, 20], array_map($sent, range(1, 5)), 'each leaves its room');
        rename("$this->var/spool/".self::NAME.'.part', "$this->var/spool/".self::NAME);
        $errand->update(['state' => ErrandState::Done]);
        $this->get($waits)->assertSee('data-begins', false);
    }

    public function test_what_is_still_to_come_counts_as_taken_room(): void
    {
        $spool = app(Spool::class);
        $free = (int) disk_free_space($this->var);
        $this->expectExceptionMessage('There is no room on the disk');
        $spool->put(
            $free - 300_000_000,
            static fn () => $spool->put(200_000_000, static fn () => self::fail('It was begun.')),
        );
    }

    public function test_what_a_killed_worker_left_takes_no_room_and_goes_with_the_next(): void
    {
        mkdir("$this->var/spool");
        file_put_contents("$this->var/spool/".self::NAME.'.part', 'begun');
        file_put_contents("$this->var/spool/".self::NAME.'.size', (string) (int) disk_free_space($this->var));
        touch("$this->var/spool/".self::NAME.'.size', time() - 60);
        $name = app(Spool::class)->put(3, static fn ($file): int => (int) fwrite($file, 'new'));
        self::assertSame(["$this->var/spool/$name"], glob("$this->var/spool/*"));
    }

    private function ordered(): Errand
    {
        config(['queue.default' => 'database', 'cellarium.errand_seconds' => 0]);
        $this->get("$this->files?look=1");
        self::carryOut(Errand::latest('id')->firstOrFail());
        $this->post("/sites/{$this->site->id}/file-downloads", [
            'at' => $this->at(),
            'names' => [$this->word('dials')],
        ])->assertRedirect();

        return Errand::where('kind', TaskName::forTask(Download::class))->latest('id')->firstOrFail();
    }

    /** As a worker that has come so far. */
    private function begun(Errand $errand, string $bytes, int $size): string
    {
        $errand->update([
            'state' => ErrandState::Running,
            'result' => ['file' => self::NAME, 'size' => $size, 'named' => 'attachment; filename=dials.zip'],
        ]);
        is_dir("$this->var/spool") || mkdir("$this->var/spool");
        file_put_contents("$this->var/spool/".self::NAME.'.part', $bytes);

        return "$this->var/spool/".self::NAME.'.part';
    }

    /** @param  \Closure(): mixed|null  $then  done once the first bytes are there */
    private function taken(TestResponse $answer, ?\Closure $then = null): string
    {
        $got = '';
        ob_start(static function (string $bytes) use (&$got, &$then): string {
            $got .= $bytes;
            [$once, $then] = [$then, null];
            $once === null || $once();

            return '';
        }, 1);
        try {
            $answer->baseResponse->sendContent();
        } finally {
            ob_end_clean();
        }

        return $got;
    }
}
