<?php

declare(strict_types=1);

namespace App\Removal;

use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\RemovableKind;
use App\Models\SetAside;
use App\Models\Site;
use App\Text\Amount;
use Cellarium\Core\Reach\SiteReach;
use Cellarium\Core\Words\Count;
use Illuminate\Support\Collection;

/** Everything that goes with a client, an account or a site that is removed from Cellarium. */
final readonly class RemovalImpact
{
    /**
     * @param  Collection<int, Account>  $accounts
     * @param  Collection<int, Site>  $sites
     * @param  Collection<int, FtpUser>  $openUsers  that can still sign in
     * @param  int  $backups  that are held of the sites
     * @param  int  $backupBytes  what they hold, before equal contents are stored once
     * @param  int  $setAside  files that are held and could be restored
     * @param  bool  $busy  whether a deployment or a backup is at work
     */
    private function __construct(
        public RemovableKind $kind,
        public Client|Account|Site $subject,
        public Collection $accounts,
        public Collection $sites,
        public Collection $openUsers,
        public int $backups,
        public int $backupBytes,
        public int $setAside,
        private bool $busy,
    ) {
    }

    public static function forSubject(Client|Account|Site $subject): self
    {
        [$kind, $accounts, $sites] = match (true) {
            $subject instanceof Client => [RemovableKind::Client, $subject->accounts, $subject->sites],
            $subject instanceof Account => [RemovableKind::Account, collect([$subject]), $subject->sites],
            default => [RemovableKind::Site, collect(), collect([$subject])],
        };
        $ids = $sites->pluck('id');
        $backups = Backup::whereIn('site_id', $ids)->where('state', BackupState::Verified);

        return new self(
            $kind,
            $subject,
            $accounts,
            $sites,
            $subject instanceof Site ? self::usersOfSite($subject) : self::usersOf($accounts),
            $backups->count(),
            (int) $backups->sum('bytes'),
            SetAside::held()->whereIn('site_id', $ids)->count(),
            Deployment::whereIn('site_id', $ids)->whereIn('state', DeploymentState::GOING)->exists()
                || Backup::whereIn('site_id', $ids)->where('state', BackupState::Taking)->exists(),
        );
    }

    /**
     * @param  Collection<int, Account>  $accounts
     * @return Collection<int, FtpUser>
     */
    private static function usersOf(Collection $accounts): Collection
    {
        return FtpUser::with('account.client', 'account.sites')
            ->alive()
            ->whereIn('account_id', $accounts->pluck('id'))
            ->orderBy('login')
            ->get()
            ->toBase();
    }

    /** @return Collection<int, FtpUser> those that reach this site and no other */
    private static function usersOfSite(Site $site): Collection
    {
        return self::usersOf(collect([$site->account]))->filter(
            static fn (FtpUser $user): bool => [$site->domain] === array_map(
                static fn (SiteReach $reached): string => $reached->domain,
                $user->reach()->touched(),
            ),
        )->values();
    }

    /** Why it cannot be removed now; null where it can. */
    public function objection(): ?string
    {
        return $this->busy
            ? 'A deployment or a backup is at work there. Wait for its end, or cancel it.'
            : null;
    }

    public function title(): string
    {
        return self::name($this->subject);
    }

    public static function name(Client|Account|Site $subject): string
    {
        return match (true) {
            $subject instanceof Client => "client $subject->name",
            $subject instanceof Account => "account $subject->login at $subject->host",
            default => "site $subject->domain",
        };
    }

    /** All that goes, in a few words. */
    public function words(): string
    {
        $parts = match ($this->kind) {
            RemovableKind::Client => [
                Count::words($this->accounts->count(), 'account'),
                Count::words($this->sites->count(), 'site'),
            ],
            RemovableKind::Account => [Count::words($this->sites->count(), 'site')],
            RemovableKind::Site => [],
        };
        $parts[] = Count::words($this->backups, 'backup').' ('.Amount::bytes($this->backupBytes).')';

        return implode(', ', $parts);
    }
}
