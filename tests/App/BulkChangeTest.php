<?php

declare(strict_types=1);

namespace Tests\App;

use App\FtpUsers\CarryOutBulk;
use App\FtpUsers\FtpUsers;
use App\Models\BulkChange;
use App\Models\BulkChangeState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Watch\Recovery;
use Illuminate\Support\Facades\Queue;

/** Many FTP users at once: first what would be done, then each with its proof. */
final class BulkChangeTest extends AppTestCase
{
    /** @var list<FtpUser> two that are open and one that was closed */
    private array $three = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->person);
        $this->three = [$this->ftpUser('one'), $this->ftpUser('two'), $this->ftpUser('ended')];
        app(FtpUsers::class)->close($this->three[2], 'by hand');
    }

    private function draft(string $kind): BulkChange
    {
        $this->post('/bulk', [
            'kind' => $kind,
            'users' => array_column($this->three, 'id'),
            'closes' => now()->addDays(3)->format('Y-m-d\TH:i'),
        ])->assertRedirect();

        return BulkChange::latest('id')->firstOrFail();
    }

    private function started(BulkChange $change): BulkChange
    {
        $this->post("/bulk/$change->id/start")->assertRedirect();

        return $change->refresh();
    }

    public function test_none_ticked_and_a_time_that_is_over_are_refused(): void
    {
        $this->from('/ftp-users')
            ->post('/bulk', ['kind' => 'close'])
            ->assertSessionHas('trouble', 'Tick the FTP users first.');
        $this->from('/ftp-users')
            ->post('/bulk', [
                'kind' => 'move',
                'users' => array_column($this->three, 'id'),
                'closes' => '2020-01-01T00:00',
            ])
            ->assertSessionHas('trouble');
        self::assertSame(0, BulkChange::count());
    }

    public function test_what_would_be_done_is_shown_before_anything_is(): void
    {
        $change = $this->draft('close');
        $this->get("/bulk/$change->id")
            ->assertOk()
            ->assertSee('nothing has been changed yet')
            ->assertSee('left alone');
        self::assertSame(BulkChangeState::Draft, $change->state);
        self::assertSame(FtpUserState::Open, $this->three[0]->refresh()->state);
    }

    public function test_it_starts_once(): void
    {
        $change = $this->started($this->draft('move'));
        $this->post("/bulk/$change->id/start")->assertSessionHas('trouble', 'This was started already.');
    }

    public function test_closing_times_are_moved_of_those_that_are_open(): void
    {
        $change = $this->started($this->draft('move'));
        self::assertSame(
            [BulkChangeState::Done, [true, true, null]],
            [
                $change->state,
                array_map(static fn (array $item): ?bool => $item['result']['ok'] ?? null, $change->items),
            ],
        );
        self::assertEquals($change->closes_at, $this->three[0]->refresh()->closes_at);
    }

    public function test_passwords_are_renewed_proven_and_wait_to_be_handed_over(): void
    {
        $old = $this->three[0]->secret;
        $change = $this->started($this->draft('renew'));
        self::assertNotSame($old, $this->three[0]->refresh()->secret);
        $this->get("/bulk/$change->id")
            ->assertSee('renewed and proven by signing in')
            ->assertSee('Hand over');
    }

    public function test_a_worker_that_was_killed_after_the_first_goes_on_with_the_second(): void
    {
        Queue::fake();
        $change = $this->started($this->draft('close'));
        $items = $change->items;
        $items[0]['result'] = ['ok' => true, 'words' => 'closed before the worker was killed'];
        $change->update(['items' => $items]);
        $this->travel(2)->minutes();
        Queue::fake();
        app(Recovery::class)->takeUp();
        self::assertOrdered(CarryOutBulk::class, $change->id);
        app(CarryOutBulk::class)->carryOut($change->id);
        self::assertSame(
            [BulkChangeState::Done, 'closed before the worker was killed'],
            [$change->refresh()->state, $change->items[0]['result']['words']],
        );
        self::assertStringContainsString(
            'two@site.example: sign-in refused (530)',
            $change->items[1]['result']['words'],
        );
        self::assertSame(
            [FtpUserState::Open, FtpUserState::Closed],
            [$this->three[0]->refresh()->state, $this->three[1]->refresh()->state],
        );
    }
}
