<?php

declare(strict_types=1);

namespace App\Today;

use App\Models\Alarm;
use App\Models\DamagedContent;
use App\Models\OpenAddress;
use App\Models\ProofBy;
use App\Text\Amount;
use App\Text\When;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** Concerns about sites and their backups: promises that are broken, rehearsals that failed, damage. */
final readonly class SiteConcerns
{
    /** @return list<Concern> */
    public static function all(): array
    {
        return [
            ...self::notSaved(),
            ...self::alarms(),
            ...self::damaged(),
            ...self::open(),
            ...self::sites(),
        ];
    }

    /** @return list<Concern> */
    private static function notSaved(): array
    {
        return config('cellarium.self_backup.to') !== '' ? [] : [new Concern(
            ConcernKind::SelfBackup,
            Urgency::Soon,
            'Cellarium itself is not saved',
            'this installation',
            'If this machine were lost today, its accounts, keys and lists of backups would be too. Name a place in '
                .'CELLARIUM_SELF_BACKUP_TO',
            'Look',
            '/backups/sites#itself',
        )];
    }

    /** @return list<Concern> */
    private static function alarms(): array
    {
        return Alarm::orderBy('id')->get()->map(static fn (Alarm $alarm): Concern => new Concern(
            ConcernKind::Store,
            Urgency::Now,
            $alarm->kind->title(),
            'the store',
            $alarm->words,
            'Look',
            '/backups/sites',
        ))->all();
    }

    /** @return list<Concern> */
    private static function damaged(): array
    {
        return DamagedContent::open()->get()->map(static fn (DamagedContent $damaged): Concern => new Concern(
            ConcernKind::Damaged,
            Urgency::Now,
            'A stored file is damaged',
            $damaged->where(),
            $damaged->trouble ?? 'It is fetched again from a live site as soon as one is found that still has it',
            'Look',
            '/backups/sites',
        ))->all();
    }

    /** @return list<Concern> of addresses that answer everybody and should not */
    private static function open(): array
    {
        return OpenAddress::whereHas('site', static fn ($site) => $site->whereNull('removed_at'))
            ->with('site')
            ->orderBy('id')
            ->get()
            ->map(static fn (OpenAddress $one): Concern => new Concern(
                ConcernKind::OpenAddress,
                Urgency::Now,
                $one->kind->title(),
                $one->site->domain,
                "$one->url. {$one->words()}",
                'Ask again',
                "/sites/$one->site_id/open-addresses",
                'POST',
                page: "/sites/$one->site_id#open",
            ))->all();
    }

    /** @return list<Concern> */
    private static function sites(): array
    {
        $rows = DB::table('sites')
            ->join('accounts', 'accounts.id', 'sites.account_id')
            ->leftJoin('deployments', 'deployments.id', 'sites.last_deployment_id')
            ->whereNull('sites.removed_at')
            ->where(
                static fn ($query) => $query
                    ->where('placeholder', true)
                    ->orWhereNull('last_backup_at')
                    ->orWhere('backup_promised_at', '<', now())
                    ->orWhere('rehearsal_promised_at', '<', now())
                    ->orWhereNotNull('rehearsal_trouble')
                    ->orWhere('deployments.proof_by', ProofBy::ReadingBack->value)
                    ->orWhereExists(self::stays()),
            )
            ->orderBy('domain')
            ->select([
                'sites.id',
                'domain',
                'placeholder',
                'placeholder_file',
                'live_proven_at',
                'last_backup_at AS last',
                'backup_promised_at AS promised',
                'rehearsed_at AS rehearsed',
                'rehearsal_promised_at AS rehearsal',
                'rehearsal_trouble AS trouble',
                'host',
                'sites.account_id',
                'proof_by',
                'last_deployment_id',
            ])
            ->selectSub(self::stays()->select('account_id')->latest('id')->limit(1), 'moved_from_id')
            ->get();

        return $rows
            ->flatMap(static fn (\stdClass $site): array => [...self::notShown($site), ...self::site($site)])
            ->values()
            ->all();
    }

    /** Accounts that a site was in before. */
    private static function stays(): Builder
    {
        return DB::table('site_stays')->whereColumn('site_id', 'sites.id');
    }

    /** @return list<Concern> of a site that went to another host, or was read back only, until visitors get it */
    private static function notShown(\stdClass $site): array
    {
        return match (true) {
            $site->live_proven_at !== null => [],
            $site->proof_by === ProofBy::ReadingBack->value => [self::notAsked($site)],
            $site->moved_from_id !== null => [self::notFilled($site)],
            default => [],
        };
    }

    /** @return list<Concern> */
    private static function site(\stdClass $site): array
    {
        if ($site->placeholder) {
            return [new Concern(
                ConcernKind::Placeholder,
                Urgency::WhenYouCan,
                'Still the host’s placeholder page',
                $site->domain,
                "Visitors see $site->placeholder_file from the host"
                    .($site->live_proven_at === null ? ', nothing was deployed yet' : ''),
                'Deploy',
                "/deployments/new?site=$site->id",
                page: "/sites/$site->id",
            )];
        }
        if ($site->last === null) {
            return [new Concern(
                ConcernKind::NoBackup,
                Urgency::Soon,
                'No backup yet',
                $site->domain,
                'If this site were lost today, nothing here could restore it',
                'Back up now',
                "/sites/$site->id/backups",
                'POST',
                page: "/sites/$site->id",
            )];
        }
        $isPast = static fn (?string $at): bool => $at !== null && CarbonImmutable::parse($at)->isPast();

        return [
            ...$isPast($site->promised) ? [self::late($site)] : [],
            ...$isPast($site->rehearsal) ? [self::notRehearsed($site)] : [],
            ...$site->trouble === null ? [] : [self::failedRehearsal($site)],
        ];
    }

    private static function notAsked(\stdClass $site): Concern
    {
        return new Concern(
            ConcernKind::NotShown,
            Urgency::WhenYouCan,
            'Read back, visitors not asked',
            $site->domain,
            "Its files are at $site->host. Ask as visitors do once the host answers for the name",
            'Ask',
            "/deployments/$site->last_deployment_id/prove",
            'POST',
            page: "/sites/$site->id",
        );
    }

    private static function notFilled(\stdClass $site): Concern
    {
        return new Concern(
            ConcernKind::NotShown,
            Urgency::Soon,
            'Not filled at its new host',
            $site->domain,
            "It belongs to $site->host now, and nothing of it was put there yet",
            'Look',
            "/accounts/$site->moved_from_id/anew?to=$site->account_id",
            page: "/sites/$site->id",
        );
    }

    private static function late(\stdClass $site): Concern
    {
        $last = CarbonImmutable::parse($site->last);
        $days = (int) $last->diffInDays(now());

        return new Concern(
            ConcernKind::LateBackup,
            Urgency::Soon,
            $days > 1 ? "No backup for $days days" : 'No backup for longer than promised',
            $site->domain,
            'The last one that was read back is from '.When::shown($last, $days > 1 ? 'j M Y' : 'j M Y H:i'),
            'Back up now',
            "/sites/$site->id/backups",
            'POST',
            max(1, $days),
            "/sites/$site->id",
        );
    }

    private static function failedRehearsal(\stdClass $site): Concern
    {
        return new Concern(
            ConcernKind::Rehearsal,
            Urgency::Now,
            'A backup could not be rehearsed',
            $site->domain,
            $site->trouble,
            'Look',
            "/backups?site=$site->id",
            page: "/sites/$site->id",
        );
    }

    private static function notRehearsed(\stdClass $site): Concern
    {
        return new Concern(
            ConcernKind::LateRehearsal,
            Urgency::WhenYouCan,
            'No rehearsal for longer than promised',
            $site->domain,
            $site->rehearsed === null
                ? 'No backup of it was ever brought back to see whether that works'
                : 'The last one was '.Amount::ago(CarbonImmutable::parse($site->rehearsed)),
            'Rehearse now',
            "/sites/$site->id/rehearsals",
            'POST',
            page: "/sites/$site->id",
        );
    }
}
