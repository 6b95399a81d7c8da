<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\ConnectAccount;
use App\Accounts\FindRoot;
use App\Accounts\ProveRoot;
use App\Accounts\RenewPassword;
use App\Errands\ErrandTask;
use App\FtpUsers\CloseUser;
use App\Models\Account;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Watch\Recovery;
use App\Work\TaskName;
use Cellarium\Core\Storage\Locks;
use Illuminate\Support\Facades\DB;

/** What a page has asked a server for is cancelled by the one who asked, and is never going on when nobody does it. */
final class ErrandTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->person);
    }

    /** @param  class-string<ErrandTask>  $task */
    private function errand(string $task, ErrandState $state): Errand
    {
        return Errand::create([
            'kind' => TaskName::forTask($task),
            'state' => $state,
            'person_id' => $this->person->id,
            'site_id' => $this->site->id,
            'account_id' => $this->account->id,
            'back' => '/accounts',
            'given' => [],
            'started_at' => $state === ErrandState::Running ? now() : null,
        ]);
    }

    public function test_what_waits_is_cancelled_and_not_done_after_all(): void
    {
        $errand = $this->errand(RenewPassword::class, ErrandState::Waiting);
        $this->get("/errands/$errand->id")->assertOk()->assertSee('Cancel');
        $secret = $this->account->secret;
        $this->post("/errands/$errand->id/cancel")
            ->assertRedirect('/accounts')
            ->assertSessionHas('trouble', 'Cancelled before the server was asked anything.');
        self::carryOut($errand);
        self::assertSame(
            [ErrandState::Cancelled, $secret],
            [$errand->refresh()->state, $this->account->refresh()->secret],
        );
    }

    public function test_what_looks_is_cancelled_while_it_goes_on_and_what_changes_is_not(): void
    {
        $look = $this->errand(FindRoot::class, ErrandState::Running);
        $this->post("/errands/$look->id/cancel")
            ->assertRedirect('/accounts')
            ->assertSessionHas('trouble', 'Cancelled. What the server still answers is not used.');
        $change = $this->errand(CloseUser::class, ErrandState::Running);
        $this->get("/errands/$change->id")->assertOk()->assertDontSee('/cancel', false);
        $this->post("/errands/$change->id/cancel")->assertRedirect();
        self::assertStringContainsString('not broken off half done', (string) session('trouble'));
        self::assertSame(ErrandState::Running, $change->refresh()->state);
    }

    public function test_an_answer_that_comes_after_cancelling_changes_nothing(): void
    {
        $errand = $this->errand(FindRoot::class, ErrandState::Waiting);
        // Cancelled by another session in the moment in which the worker has begun.
        DB::listen(static function (object $query) use ($errand): void {
            if (str_contains($query->sql, 'update `errands`') && in_array('running', $query->bindings, true)) {
                DB::table('errands')
                    ->where('id', $errand->id)
                    ->update(['state' => 'cancelled', 'words' => 'Cancelled.']);
            }
        });
        self::carryOut($errand);
        self::assertSame([ErrandState::Cancelled, 'Cancelled.'], [$errand->refresh()->state, $errand->words]);
    }

    public function test_a_ladder_is_cancelled_at_the_next_rung(): void
    {
        $this->account->update(['climbing_at' => now()]);
        $this->get("/accounts/{$this->account->id}/ladder")->assertSee('/cancel', false);
        $cancelled = false;
        Account::updated(function (Account $account) use (&$cancelled): void {
            if (! $cancelled && count($account->ladder ?? []) === 2) {
                $cancelled = true;
                $this->post("/accounts/$account->id/cancel")->assertRedirect();
            }
        });
        app(ConnectAccount::class)->carryOut($this->account->id);
        $account = $this->account->refresh();
        self::assertTrue($cancelled);
        self::assertSame([2, null, null], [count($account->ladder ?? []), $account->climbing_at, $account->trouble]);
        self::assertSame(RecordKind::ConnectingCancelled, RecordEntry::latest('id')->firstOrFail()->action);
    }

    public function test_when_its_worker_was_killed_the_page_says_so_at_once(): void
    {
        $held = $this->errand(ProveRoot::class, ErrandState::Running);
        $orphan = $this->errand(ProveRoot::class, ErrandState::Running);
        $lock = app(Locks::class)->acquire(ErrandTask::lockName($held->id));
        self::assertNotNull($lock);
        app(Recovery::class)->takeUp();
        $lock->release();
        self::assertSame(
            [ErrandState::Running, ErrandState::Failed],
            [$held->refresh()->state, $orphan->refresh()->state],
        );
        $this->get("/errands/$orphan->id")
            ->assertRedirect('/accounts')
            ->assertSessionHas('trouble');
    }
}
