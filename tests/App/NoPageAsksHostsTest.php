<?php

declare(strict_types=1);

namespace Tests\App;

use App\Errands\Errands;
use App\Files\FetchFile;
use App\Files\FileWorkers;
use App\FtpUsers\CloseUser;
use App\FtpUsers\MakeUser;
use App\Hosting\Connections;
use App\Hosting\HostShare;
use App\Models\Closing;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Storage\Spool;
use App\Work\TaskName;
use Cellarium\Core\Credential\PasswordKind;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use Tests\Support\Builder\PersonBuilder;

/** Pages order what hosts are asked for; what was fetched waits an hour, for the one who asked. */
final class NoPageAsksHostsTest extends FilesTestCase
{
    public function test_by_no_way_does_a_page_reach_a_host(): void
    {
        $connections = app(Connections::class);
        $linked = $this->account->replicate();
        $linked->fill(['control_url' => 'http://control.example', 'control_token' => 't']);
        $ways = [
            fn () => $connections->remote($this->account),
            fn () => $connections->remoteAs($this->account->ftpUsers()->make(['login' => 'x', 'secret' => 'y'])),
            fn () => $connections->control($linked),
            fn () => $connections->jobs($linked),
            fn () => $connections->web(),
            fn () => $connections->ladder(),
            fn () => $connections->outageWatch('http://site.example/', null),
            fn () => $connections->endpointAsSaved($this->account),
            // Connections of its own, that none of the above has made.
            fn () => app(FileWorkers::class)->with($this->account, fn () => null, fn () => null),
        ];
        foreach ($ways as $number => $way) {
            Route::get("/asks-$number", static function () use ($way): string {
                try {
                    $way();
                } catch (\LogicException $refused) {
                    return $refused->getMessage();
                }

                return 'It was asked.';
            });
            $this->get("/asks-$number")->assertSee('A page asks no host itself');
        }
        self::assertNotNull($connections->web(), 'outside of a page it may be asked');
    }

    public function test_a_look_waits_for_no_host_and_shows_what_was_fetched_once_it_is_there(): void
    {
        file_put_contents($this->root().'/dial.png', "\x89PNG\r\n, and more");
        config(['queue.default' => 'database', 'cellarium.errand_seconds' => 0]);
        $look = "/sites/{$this->site->id}/look-file/dial.png?seen=1";

        $this->get($look)->assertStatus(202)->assertHeader('Retry-After', '1');
        $this->get($look)->assertStatus(202);
        self::assertSame(1, Errand::where('kind', TaskName::forTask(FetchFile::class))->count(), 'it is fetched once');
        self::carryOut(Errand::latest('id')->firstOrFail());
        self::assertSame("\x89PNG\r\n, and more", $this->get($look)->assertOk()->streamedContent());
        $part = $this->get($look, ['Range' => 'bytes=1-3'])->assertStatus(206);
        self::assertSame('PNG', $part->streamedContent());
    }

    public function test_a_comparison_leads_to_the_page_that_waits_and_from_there_to_itself(): void
    {
        config(['queue.default' => 'database', 'cellarium.errand_seconds' => 0]);
        $compare = "/sites/{$this->site->id}/compare-file/index.html?with=".hash('sha256', '<h1>Dials</h1>');

        $waits = (string) $this->get($compare)->assertRedirect()->headers->get('Location');
        self::assertStringContainsString('/errands/', $waits);
        $errand = Errand::latest('id')->firstOrFail();
        self::carryOut($errand);
        $this->get($waits)->assertRedirect($compare);
        $this->get($compare)->assertOk()->assertSee('It is the same to the byte');
        $spooled = (string) file_get_contents("$this->var/spool/{$errand->refresh()->result['file']}");
        self::assertStringNotContainsString('Dials', $spooled, 'passwords may stand in a text: it is sealed');
    }

    public function test_what_was_fetched_for_one_is_not_shown_to_another(): void
    {
        file_put_contents($this->root().'/dial.png', 'the picture');
        $look = "/sites/{$this->site->id}/look-file/dial.png?seen=1";
        $this->get($look)->assertOk();
        $this->actingAs(PersonBuilder::aHelper()->build())->get($look)->assertOk();
        self::assertSame(2, Errand::where('kind', TaskName::forTask(FetchFile::class))->count());
    }

    public function test_what_was_fetched_is_gone_within_the_hour(): void
    {
        $spool = app(Spool::class);
        $old = $spool->put(3, static fn ($file): int => (int) fwrite($file, 'old'));
        $new = $spool->put(3, static fn ($file): int => (int) fwrite($file, 'new'));
        touch((string) $spool->file($old), time() - Spool::SECONDS);
        $this->artisan('cellarium:recover');
        self::assertSame([null, true], [$spool->file($old), $spool->file($new) !== null]);
        self::assertNull($spool->file('../keys/contents.json'), 'a name leads nowhere else');
    }

    public function test_what_has_no_room_is_not_begun(): void
    {
        $this->expectExceptionMessage('There is no room on the disk');
        app(Spool::class)->put(PHP_INT_MAX, static fn (): int => self::fail('It was begun.'));
    }

    public function test_of_all_that_wait_for_hosts_one_host_has_half_and_all_of_them_leave_room(): void
    {
        $share = new HostShare("$this->var/locks/some", 4);
        $taken = static fn (string $hosts): array => array_filter(array_map($share->take(...), str_split($hosts)));

        self::assertSame([0, 1, 3], array_keys($taken('aaab')), 'the third of one host does not wait');
        self::assertSame([0, 1, 2, 3], array_keys($taken('aabcd')), 'nor the fifth of all');
        self::assertSame([0, 1], array_keys($taken('aa')), 'what is over leaves its place');
    }

    public function test_a_page_whose_host_has_its_share_of_waiting_pages_waits_not_at_all(): void
    {
        config(['queue.default' => 'database', 'cellarium.errand_seconds' => 300]);
        $held = array_map(fn (): ?array => HostShare::ofPages()->take($this->account->host), range(1, 3));
        self::assertNotContains(null, $held);
        $this->get("$this->files?look=1")->assertOk();
        self::assertSame(ErrandState::Waiting, Errand::latest('id')->firstOrFail()->state);
    }

    public function test_what_an_errand_does_is_recorded_as_what_its_person_did(): void
    {
        config(['queue.default' => 'database']);
        $helper = PersonBuilder::aHelper()->build();
        $this->actingAs($helper);
        $user = $this->ftpUser();
        Errands::order(CloseUser::class, '/', $user);
        auth()->forgetUser();
        self::carryOut(Errand::latest('id')->firstOrFail());
        self::assertSame(ErrandState::Done, Errand::latest('id')->firstOrFail()->state);
        $closed = RecordEntry::where('action', RecordKind::FtpUserClosed)->latest('id')->firstOrFail();
        self::assertSame($helper->id, $closed->person_id);
        self::assertNull(Person::viewer(), 'and nobody is signed in afterwards');
    }

    public function test_a_form_that_a_host_refuses_after_a_while_is_shown_as_it_was_typed(): void
    {
        config(['queue.default' => 'database', 'cellarium.errand_seconds' => 0]);
        $typed = [
            'name' => 'painter',
            'directory' => "{$this->site->document_root}/index.html/below",
            'makes_directory' => '1',
            'password_kind' => PasswordKind::Readable->value,
            'ends' => Closing::AtTime->value,
            'closes' => now()->addDay()->format('Y-m-d\TH:i'),
            'purpose' => 'the north wall',
        ];
        $waits = (string) $this->post("/accounts/{$this->account->id}/ftp-users", $typed)->headers->get('Location');
        self::assertStringContainsString('/errands/', $waits);
        self::carryOut(Errand::latest('id')->firstOrFail());
        $form = (string) $this->get($waits)->assertRedirect()->headers->get('Location');
        $this->get($form)->assertOk()->assertSee('painter')->assertSee('the north wall')
            ->assertSee('index.html/below');
        self::assertSame(
            0,
            Errand::where('kind', TaskName::forTask(MakeUser::class))->count(),
            'nothing of it is kept',
        );
        self::assertSame(0, DB::table('ftp_users')->where('login', 'like', '%painter%')->count());
    }
}
