<?php

declare(strict_types=1);

namespace App\Reach;

use App\FtpUsers\FtpUserView;
use App\Models\Account;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\Extent;
use Cellarium\Core\Reach\Reach;
use Cellarium\Core\Reach\SiteReach;

/** One login of the reach map, with the rows it can touch. */
final readonly class MapLane
{
    /**
     * @param  int  $from  the first row it can touch
     * @param  int  $to  the last
     * @param  string  $note  a word or two under its bar
     * @param  string  $words  the same facts as a sentence
     */
    private function __construct(
        public string $url,
        public string $login,
        public string $tone,
        public int $from,
        public int $to,
        public string $note,
        public string $words,
        public bool $warn = false,
        public bool $closed = false,
    ) {
    }

    /** The account's own login, which can touch everything. */
    public static function ofAccount(Account $account, int $rows): self
    {
        return new self(
            "/accounts/$account->id#ladder",
            $account->login,
            'kept',
            0,
            $rows - 1,
            'full account',
            "$account->login, the account itself: everything in it",
        );
    }

    /** @param  list<RemotePath>  $places  of the rows */
    public static function forUser(FtpUser $user, array $places): self
    {
        $directory = $user->path();
        $within = array_keys(array_filter(
            $places,
            // What is folded away in a directory above is not reached by who lands further down.
            static fn (RemotePath $place): bool => $directory->contains($place),
        ));
        $within = $within === [] ? [0] : $within;
        $reach = $user->reach();
        $ended = $user->hasEnded();

        return new self(
            "/ftp-users/$user->id",
            $user->shortLogin(),
            self::toneOf($user, $reach),
            min($within),
            max($within),
            self::noteOf($user, $reach),
            "$user->login, ".FtpUserView::stands($user)[0].": lands in $user->directory, ".self::extents($reach)
                .($ended ? '' : "; closes {$user->endsWords()}").($user->read_only ? '; may only read' : ''),
            ! $ended && ($reach->isTooWide() || $user->proof_failed_at !== null),
            $ended,
        );
    }

    private static function toneOf(FtpUser $user, Reach $reach): string
    {
        return match (true) {
            $user->hasEnded() => 'closed',
            $reach->isTooWide(),
            $user->isOverdue(),
            $user->proof_failed_at !== null,
            $user->state === FtpUserState::ClosingFailed => 'now',
            ! $user->isProven() => 'soon',
            default => 'proven',
        };
    }

    private static function noteOf(FtpUser $user, Reach $reach): string
    {
        $touched = $reach->touched();

        return match (true) {
            $user->hasEnded() && $user->refusal_proven_at === null => 'closed',
            $user->hasEnded() => 'refused '.$user->refusal_proven_at?->shown('j M'),
            $user->proof_failed_at !== null => 'does not hold',
            ! $user->isProven() => 'not proven',
            count($reach->clients()) > 1 => count($reach->clients()).' clients',
            $reach->isTooWide() => count($touched).' sites: too wide',
            $touched === [] => 'no site',
            $touched[0]->extent === Extent::Part => 'part of a site',
            default => 'one site',
        };
    }

    private static function extents(Reach $reach): string
    {
        $words = array_map(
            static fn (SiteReach $site): string => ($site->extent === Extent::Whole ? 'all of ' : 'part of ')
                .$site->domain,
            $reach->touched(),
        );

        return $words === [] ? 'reaches no site' : 'reaches '.implode(', ', $words);
    }
}
