<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Account;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use Illuminate\Support\Facades\Cache;
use Tests\Support\StandinHost;

/** The password of an account is renewed, and neither the old nor the new one is lost when something breaks. */
final class PasswordRenewalTest extends AppTestCase
{
    private function renew(): \Illuminate\Testing\TestResponse
    {
        return $this->actingAs($this->person)
            ->followingRedirects()
            ->post("/accounts/{$this->account->id}/renew-password");
    }

    /** The host has this password, and here it is only asked for: what a lost answer leaves. */
    private function halfDone(string $password): void
    {
        $this->account->update(['next_secret' => $password]);
        $this->host->control('PATCH', '/v1/account', StandinHost::TOKEN, ['password' => $password]);
    }

    private function recovered(): Account
    {
        $this->artisan('cellarium:recover', ['--starting' => true]);

        return $this->account->refresh();
    }

    public function test_it_is_renewed_at_the_host_and_here_and_proven(): void
    {
        $this->renew()->assertSee('renewed at the host and here');
        self::assertNotSame(StandinHost::PASSWORD, $this->account->refresh()->secret);
        self::assertNull($this->account->next_secret);
        self::assertTrue($this->artisanJson('connect', 'site.example')[1]['ok']);
        self::assertSame(1, RecordEntry::where('action', RecordKind::PasswordRenewed)->count());
    }

    public function test_when_the_answer_is_lost_signing_in_tells_that_the_host_did_it(): void
    {
        $this->halfDone('a-password-of-before');
        $this->renew()->assertSee('renewed at the host and here');
        self::assertSame('a-password-of-before', $this->account->refresh()->secret);
    }

    public function test_killed_after_the_host_did_it_the_recovery_takes_it_up(): void
    {
        $this->halfDone('set-and-then-killed');
        $account = $this->recovered();
        self::assertSame(['set-and-then-killed', null], [$account->secret, $account->next_secret]);
    }

    public function test_where_neither_is_right_both_are_kept_and_it_is_not_tried_over_and_over(): void
    {
        $this->account->update(['next_secret' => 'one-that-is-wrong', 'secret' => 'another-that-is-wrong']);
        $account = $this->recovered();
        self::assertSame(
            ['sign_in_refused', 'one-that-is-wrong', 'another-that-is-wrong'],
            [$account->trouble, $account->next_secret, $account->secret],
        );
    }

    public function test_two_at_once_are_one(): void
    {
        $lock = Cache::lock("renew-password-{$this->account->id}", 60);
        $lock->get();
        $this->renew()->assertSee('is being renewed just now');
        $lock->release();
        self::assertSame(StandinHost::PASSWORD, $this->account->refresh()->secret);
    }

    public function test_where_the_host_did_nothing_the_old_one_stays(): void
    {
        $this->account->update(['control_token' => 'not-the-token']);
        $this->renew()->assertSee('The old password is still the right one');
        self::assertSame(
            [StandinHost::PASSWORD, null],
            [$this->account->refresh()->secret, $this->account->next_secret],
        );
    }
}
