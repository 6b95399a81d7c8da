<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\AccountCheck;
use App\Models\Closing;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Today\Concerns;

/** FTP users that the host has and that were not made here. */
final class FtpUserMadeElsewhereTest extends FtpUserTestCase
{
    private function foundElsewhere(): FtpUser
    {
        $this->host->makeFtpUser('theirs');
        app(AccountCheck::class)->connect($this->account);

        return FtpUser::with('account.client', 'account.sites')
            ->where('login', 'theirs@site.example')
            ->firstOrFail();
    }

    public function test_open_ones_are_noticed_once_and_closed_ones_left_alone(): void
    {
        $this->ftpUser();
        $this->host->makeFtpUser('gone');
        $this->host->changeFtpUser('gone', ['open' => false]);
        $found = $this->foundElsewhere();
        app(AccountCheck::class)->connect($this->account);
        self::assertSame(['job@site.example', 'theirs@site.example'], FtpUser::orderBy('id')->pluck('login')->all());
        self::assertSame(
            [FtpUserState::Made, '/www', Closing::Never],
            [$found->state, $found->directory, $found->ends],
        );
        self::assertSame(
            ['FTP user that was not made here'],
            collect(Concerns::compute()->all)->where('kind', 'found')->pluck('title')->values()->all(),
        );
    }

    public function test_what_the_host_says_of_one_is_no_proof_and_a_password_of_ours_is_needed_for_it(): void
    {
        $found = $this->foundElsewhere();
        $this->users()->settle($found);
        self::assertSame([FtpUserState::Made, false], [$found->refresh()->state, $found->isProven()]);
        $this->users()->renew($found);
        $this->settled($found);
        self::assertSame([FtpUserState::Open, true], [$found->state, $found->isProven()]);
    }

    public function test_closing_one_leaves_ours_open(): void
    {
        $mine = $this->ftpUser();
        self::assertTrue($this->users()->close($this->foundElsewhere(), 'by hand'));
        self::assertSame(FtpUserState::Open, $mine->refresh()->state);
    }

    public function test_one_that_was_opened_again_elsewhere_is_noticed_again(): void
    {
        $found = $this->foundElsewhere();
        $this->users()->close($found, 'by hand');
        $this->host->changeFtpUser('theirs', ['open' => true, 'password' => 'somebody-elses-word']);
        app(AccountCheck::class)->connect($this->account);
        self::assertSame(
            [FtpUserState::Made, 'it was opened again elsewhere'],
            [$found->refresh()->state, $found->ends_reason],
        );
        self::assertTrue(
            $this->users()->close($found, 'by hand'),
            'with a password of our own, so that its refusal proves something',
        );
        self::assertFalse($this->atHost('theirs')['open']);
    }
}
