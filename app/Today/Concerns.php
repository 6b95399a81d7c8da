<?php

declare(strict_types=1);

namespace App\Today;

use App\Models\Account;
use App\Models\Deployment;
use App\Models\FtpUser;
use App\Models\Site;
use Illuminate\Support\Collection;

/** Computes what needs a hand over all accounts, most pressing first. */
final class Concerns
{
    /**
     * @param  Collection<int, Account>  $accounts  with client, sites (lastBackup, lastDeployment) and ftpUsers
     * @return list<Concern>
     */
    public static function over(Collection $accounts): array
    {
        $unfinished = Deployment::with('site')->where('state', Deployment::UNFINISHED)->get();
        $concerns = $unfinished->map(static fn (Deployment $run): Concern => new Concern(
            Urgency::Now, 'Not yet put back', $run->site->domain, (string) $run->trouble, 'Look', "/deployments/$run->id", siteId: $run->site_id,
        ))->all();
        foreach ($accounts as $account) {
            if ($account->tried_at !== null && ($account->reached_at === null || $account->reached_at < $account->tried_at)) {
                $broken = collect($account->ladder ?? [])->firstWhere('ok', false);
                $concerns[] = new Concern(Urgency::Now, 'Does not connect', $account->host, (string) ($broken['sentence'] ?? ''), 'Look', "/accounts/$account->id");
            }
            foreach ($account->ftpUsers as $user) {
                if ($user->isOverdue() || $user->state === FtpUser::CLOSING_FAILED) {
                    $concerns[] = self::openUser($account, $user);
                }
            }
            foreach ($account->sites as $site) {
                $concerns = [...$concerns, ...self::site($site)];
            }
        }
        usort($concerns, static fn (Concern $a, Concern $b): int => [$a->urgency->value, $a->about] <=> [$b->urgency->value, $b->about]);

        return $concerns;
    }

    private static function openUser(Account $account, FtpUser $user): Concern
    {
        $user->setRelation('account', $account);
        $days = (int) max(1, ceil(abs($user->closes_at?->diffInDays(now()) ?? 1)));
        $reach = count($user->reach()->touched());

        return new Concern(
            Urgency::Now, 'FTP user still open', $account->sites->first()->domain ?? $account->host,
            "{$user->shortLogin()} should have closed ".($days === 1 ? 'a day' : "$days days").' ago; reaches '.($reach === 1 ? '1 site' : "$reach sites").($user->trouble === null ? '' : ". $user->trouble"),
            'Close it', "/ftp-users/$user->id/close", 'POST', $account->sites->first()?->id,
        );
    }

    /** @return list<Concern> */
    private static function site(Site $site): array
    {
        $concerns = [];
        if ($site->placeholder === true) {
            $concerns[] = new Concern(
                Urgency::WhenYouCan, 'Still the host’s placeholder page', $site->domain,
                "Visitors see $site->placeholder_file from the host".($site->lastDeployment === null ? ', nothing was deployed yet' : ''), 'Deploy', "/deployments/new?site=$site->id", siteId: $site->id,
            );
        } elseif ($site->lastBackup === null) {
            $concerns[] = new Concern(
                Urgency::Soon, 'No backup yet', $site->domain, 'If this site were lost today, nothing here could bring it back', 'Back up now', "/sites/$site->id/backups", 'POST', $site->id,
            );
        } elseif ($site->lastBackup->verified_at->diffInDays(now()) > (int) config('cellarium.backup_days')) {
            $days = (int) $site->lastBackup->verified_at->diffInDays(now());
            $concerns[] = new Concern(
                Urgency::Soon, "No backup for $days days", $site->domain, 'The last one that was read back is from '.$site->lastBackup->verified_at->format('j M Y'), 'Back up now', "/sites/$site->id/backups", 'POST', $site->id,
            );
        }

        return $concerns;
    }
}
