<?php

declare(strict_types=1);

namespace App\Today;

use App\Models\Account;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\ClientRequest;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\PendingAction;
use App\Text\Amount;
use Cellarium\Core\Words\Count;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Str;

/** Computes what needs a hand over all accounts, most pressing first; reads only what is in trouble. */
final readonly class Concerns
{
    /** For so long a site that was put back without proof stays among what needs a hand. */
    private const DAYS_UNPROVEN = 14;

    /** @param  list<Concern>  $all */
    private function __construct(public array $all)
    {
    }

    public static function compute(): self
    {
        $concerns = [
            ...self::asked(),
            ...self::unfinished(),
            ...self::unreached(),
            ...self::openUsers(),
            ...SiteConcerns::all(),
        ];
        usort(
            $concerns,
            static fn (Concern $a, Concern $b): int => [
                $a->urgency->value,
                $a->kind->value,
                $b->weight,
                $a->about,
            ] <=> [$b->urgency->value, $b->kind->value, $a->weight, $b->about],
        );

        return new self($concerns);
    }

    /**
     * @param  ConcernKind|null  $only  one kind; null for all
     * @return list<ConcernGroup> in the order of urgency
     */
    public function groups(?ConcernKind $only = null): array
    {
        $kinds = [];
        foreach ($this->all as $concern) {
            if ($only === null || $concern->kind === $only) {
                $kinds[$concern->kind->value][] = $concern;
            }
        }

        return array_map(
            static fn (string $kind, array $alike): ConcernGroup => new ConcernGroup(ConcernKind::from($kind), $alike),
            array_keys($kinds),
            array_values($kinds),
        );
    }

    /** @return list<Concern> */
    private static function unfinished(): array
    {
        $runs = Deployment::with('site')
            ->where('state', DeploymentState::Unfinished)
            ->orWhere(
                static fn ($query) => $query
                    ->where('state', DeploymentState::PutBackUnproven)
                    ->where('ended_at', '>', now()->subDays(self::DAYS_UNPROVEN)),
            )
            ->get()
            ->map(
                static fn (Deployment $run): Concern => new Concern(
                    $run->state === DeploymentState::Unfinished ? ConcernKind::Unfinished : ConcernKind::Unproven,
                    Urgency::Now,
                    $run->state === DeploymentState::Unfinished ? 'Not yet put back' : 'Put back, not proven',
                    $run->site->domain,
                    (string) $run->trouble,
                    'Look',
                    "/deployments/$run->id",
                    page: "/sites/$run->site_id",
                ),
            );
        $asked = Backup::with('site')
            ->where('state', BackupState::Question)
            ->get()
            ->map(
                static fn (Backup $backup): Concern => new Concern(
                    ConcernKind::Question,
                    Urgency::Now,
                    'Backup waits for an answer',
                    $backup->site->domain,
                    (string) $backup->trouble,
                    'Answer',
                    "/backups?site=$backup->site_id",
                    page: "/sites/$backup->site_id",
                ),
            );

        return [...$runs->values()->all(), ...$asked->values()->all()];
    }

    /**
     * Accounts of one host that fail alike are one concern: the host is down, not each of them.
     *
     * @return list<Concern>
     */
    private static function unreached(): array
    {
        $failing = Account::with('client')
            ->whereNotNull('trouble')
            ->orderBy('id')
            ->get(['id', 'client_id', 'label', 'host', 'login', 'trouble', 'ladder', 'tried_at', 'reached_at']);
        $concerns = [];
        foreach (
            $failing->groupBy(static fn (Account $account): string => "$account->host $account->trouble") as $alike
        ) {
            $first = $alike->first();
            $broken = collect($first->ladder ?? [])->firstWhere('ok', false);
            $words = $broken === null ? '' : rtrim("{$broken['evidence']}. {$broken['cause']}", '. ').'.';
            $concerns[] = $alike->count() === 1
                ? new Concern(
                    ConcernKind::Connection,
                    Urgency::Now,
                    'Does not connect',
                    $first->title(),
                    "{$first->client->name}: $words"
                        .($first->reached_at === null
                            ? ' It never did.'
                            : ' It did '.Amount::ago($first->reached_at).'.'),
                    'Look',
                    "/accounts/$first->id",
                )
                : new Concern(
                    ConcernKind::Connection,
                    Urgency::Now,
                    "{$alike->count()} accounts do not connect, all alike",
                    $first->host,
                    $words.' '.self::some($alike),
                    'Look',
                    '/accounts?'.http_build_query(['q' => $first->host, 'only' => 'unreached']),
                    weight: $alike->count(),
                );
        }

        return $concerns;
    }

    /** @param  Collection<int, Account>  $accounts */
    private static function some(Collection $accounts): string
    {
        $names = $accounts->pluck('client.name')->unique();

        return $names->take(3)->join(', ')
            .($names->count() > 3 ? ' and '.($names->count() - 3).' more clients' : '')
            .'.';
    }

    /** @return list<Concern> what people of clients asked for */
    private static function asked(): array
    {
        return ClientRequest::with('client', 'person', 'site')
            ->whereNull('answered_at')
            ->orderBy('id')
            ->get()
            ->map(
                static fn (ClientRequest $asked): Concern => new Concern(
                    ConcernKind::Asked,
                    $asked->created_at->isBefore(now()->subDays(2)) ? Urgency::Now : Urgency::Soon,
                    $asked->kind->title(),
                    $asked->site === null ? $asked->client->name : $asked->site->domain,
                    "{$asked->person->name}, ".Amount::ago($asked->created_at).': '.Str::limit($asked->words, 160),
                    'Answer',
                    "/requests/$asked->id",
                    page: $asked->site === null ? null : "/sites/$asked->site_id",
                ),
            )
            ->values()
            ->all();
    }

    /** @return list<Concern> */
    private static function openUsers(): array
    {
        return FtpUser::with('account.client', 'account.sites', 'account.shared.other.sites')
            ->whereNotIn('state', FtpUserState::ENDED)
            ->where(self::concernsUs(...))
            ->where(
                static fn ($query) => $query
                    ->where('closes_at', '<', now())
                    ->orWhere('state', FtpUserState::ClosingFailed)
                    ->orWhereNotNull('proof_failed_at')
                    ->orWhereNotNull('pending')
                    ->orWhere(static fn ($found) => $found->whereNotNull('found_at')->whereNull('reach_proven_at')),
            )
            ->orderBy('id')
            ->get()
            ->map(self::openUser(...))
            ->filter()
            ->values()
            ->all();
    }

    /**
     * Of accounts that were removed only what was promised and not kept.
     *
     * @param  Builder<FtpUser>  $query
     */
    private static function concernsUs(Builder $query): void
    {
        $query->whereNotIn('account_id', Account::onlyTrashed()->select('id'))
            ->orWhere('closes_at', '<', now())
            ->orWhere('state', FtpUserState::ClosingFailed);
    }

    private static function openUser(FtpUser $user): ?Concern
    {
        $about = "$user->login, {$user->account->client->name}";
        $reach = count($user->reach()->touched());
        $reaches = 'Reaches '
            .Count::words($reach, 'site')
            .($user->trouble === null ? '' : '. '.rtrim($user->trouble, '.').'.');
        $byHand = $user->account->control_url === null;

        return match (true) {
            $user->action() !== null && $byHand => new Concern(
                ConcernKind::ByHand,
                $user->isOverdue() ? Urgency::Now : Urgency::Soon,
                self::toDo($user->action()),
                $about,
                'Waits for you since '.Amount::ago($user->updated_at),
                'See what to do',
                "/ftp-users/$user->id",
            ),
            $user->isOverdue() || $user->state === FtpUserState::ClosingFailed => new Concern(
                ConcernKind::OpenUser,
                Urgency::Now,
                'FTP user still open',
                $about,
                ($user->closes_at === null ? '' : 'Should have closed '.Amount::ago($user->closes_at).'. ')
                    .$reaches,
                'Close it',
                "/ftp-users/$user->id/close",
                'POST',
            ),
            $user->found_at !== null && $user->action() === null && $user->proof_failed_at === null => new Concern(
                ConcernKind::FoundUser,
                Urgency::Soon,
                'FTP user that was not made here',
                $about,
                "The host has it, landing in $user->directory. ".$reaches,
                'Look',
                "/ftp-users/$user->id",
            ),
            $user->proof_failed_at !== null => new Concern(
                ConcernKind::WrongReach,
                Urgency::Now,
                $user->reach_proven_at === null
                    ? 'FTP user reaches more or other than meant'
                    : 'Reach no longer as proven',
                $about,
                $reaches,
                'Look',
                "/ftp-users/$user->id",
            ),
            // What is being found out by itself needs nobody yet.
            $user->updated_at->isBefore(now()->subMinutes(10)) => new Concern(
                ConcernKind::Unknown,
                Urgency::Soon,
                'Not known what became of it',
                $about,
                (string) $user->trouble,
                'Look',
                "/ftp-users/$user->id",
            ),
            default => null,
        };
    }

    private static function toDo(PendingAction $action): string
    {
        return match ($action) {
            PendingAction::Create => 'FTP user to be made at the provider',
            PendingAction::Renew => 'Password to be set at the provider',
            PendingAction::Change => 'FTP user to be changed at the provider',
            PendingAction::Close => 'FTP user to be closed at the provider',
            PendingAction::Reopen => 'FTP user to be opened at the provider',
            PendingAction::Remove => 'FTP user to be removed at the provider',
        };
    }
}
