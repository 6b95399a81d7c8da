<?php

declare(strict_types=1);

namespace App\Sites;

use App\Models\Account;
use App\Models\Closing;
use App\Models\FtpUser;
use Cellarium\Core\Reach\Extent;
use Cellarium\Core\Reach\SiteReach;

/** Somebody who can touch a site: how much of it, and until when. */
final readonly class SiteToucher
{
    private function __construct(
        public ?FtpUser $user,
        public string $login,
        public string $url,
        public string $extent,
        public string $until,
        public bool $late = false,
    ) {
    }

    /** @param  bool  $unnamed  where its login would tell of another client */
    public static function account(Account $account, bool $unnamed = false): self
    {
        return new self(
            null,
            $unnamed ? 'the agency' : $account->login,
            "/accounts/$account->id",
            'whole account',
            'always',
        );
    }

    public static function user(FtpUser $user, SiteReach $reached): self
    {
        return new self(
            $user,
            $user->login,
            "/ftp-users/$user->id",
            $reached->extent === Extent::Whole ? 'all of it' : 'only '.implode(' and ', $reached->parts),
            match (true) {
                $user->isOverdue() => "should have closed {$user->endsWords()}",
                $user->ends === Closing::AtTime => "until {$user->endsWords()}",
                default => "closes {$user->endsWords()}",
            },
            $user->isOverdue(),
        );
    }
}
