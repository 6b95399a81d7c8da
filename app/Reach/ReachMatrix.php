<?php

declare(strict_types=1);

namespace App\Reach;

use App\Models\Closing;
use App\Models\FtpUser;
use Cellarium\Core\Reach\Extent;
use Cellarium\Core\Reach\Flag;
use Cellarium\Core\Reach\FleetScope;
use Cellarium\Core\Reach\LoginScope;
use Cellarium\Core\Reach\SiteReach;
use Illuminate\Http\Request;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** All open FTP users by what they reach, those that stand out first, a page at a time. */
final readonly class ReachMatrix
{
    public const AT_ONCE = 60;

    private const MOST_PAGES = 100_000;

    public const COLUMNS = [
        'client',
        'account',
        'login',
        'directory',
        'sites',
        'clients reached',
        'stands out',
        'idle days',
        'closes',
    ];

    /** What is reached, the widest first; each user is in one of these. */
    public const EXTENTS = [
        'account' => 'whole account',
        'clients' => 'two clients',
        'sites' => 'several sites',
        'site' => 'one site',
        'part' => 'part of one',
        'none' => 'no site',
    ];

    /** What else makes one stand out. */
    public const OTHERS = [Flag::ScriptsInUploads, Flag::Overdue, Flag::NotProven, Flag::NoEnd, Flag::Idle];

    /**
     * @param  list<LoginScope>  $fit  in order
     * @param  array<string, int>  $counts  by extent and flag, over all
     */
    private function __construct(
        private array $fit,
        public array $counts,
        public int $all,
        public string $only,
        public string $words,
        public int $page,
        public int $idleAfter,
    ) {
    }

    /** @return int days without use from which a user counts as idle */
    public static function idleAfter(Request $request): int
    {
        return max(1, min(3650, $request->integer('idle') ?: (int) config('cellarium.idle_days')));
    }

    /** @param  FleetScope  $fleet  computed with idleAfter() */
    public static function fromRequest(Request $request, FleetScope $fleet): self
    {
        $only = $request->string('only')->toString();
        $words = mb_substr(trim($request->string('q')->toString()), 0, 100);
        $counts = $fleet->counts() + array_fill_keys(array_keys(self::EXTENTS), 0);
        foreach ($fleet->logins as $login) {
            $counts[self::extent($login)]++;
        }
        $accounts = $words === '' ? null : self::accountsOf($words);
        $fit = array_values(
            array_filter(
                $fleet->logins,
                static fn (LoginScope $login): bool => ($only === ''
                    || self::extent($login) === $only
                    || in_array(Flag::tryFrom($only), $login->flags, true))
                    && ($accounts === null
                        || $accounts->has($login->account->key)
                        || mb_stripos($login->login->login, $words) !== false
                        || mb_stripos($login->login->directory->toString(), $words) !== false),
            ),
        );

        return new self(
            $fit,
            $counts,
            count($fleet->logins),
            $only,
            $words,
            max(1, min(self::MOST_PAGES, $request->integer('page', 1))),
            self::idleAfter($request),
        );
    }

    public static function extent(LoginScope $login): string
    {
        $touched = $login->reach->touched();

        return match (true) {
            $login->reach->isWholeAccount() => 'account',
            count($login->reach->clients()) > 1 => 'clients',
            count($touched) > 1 => 'sites',
            $touched === [] => 'none',
            default => $touched[0]->extent === Extent::Whole ? 'site' : 'part',
        };
    }

    /** @return list<MatrixRow> the users of this page */
    public function rows(): array
    {
        $part = array_slice($this->fit, ($this->page - 1) * self::AT_ONCE, self::AT_ONCE);
        $users = FtpUser::with('account.client')
            ->whereIn('id', array_map(static fn (LoginScope $login): int|string => $login->login->key, $part))
            ->get()
            ->keyBy('id');
        $rows = [];
        foreach ($part as $login) {
            // One that ended since is not shown any more.
            if ($users->has($login->login->key)) {
                $rows[] = new MatrixRow($login, $users[$login->login->key]);
            }
        }

        return $rows;
    }

    /** How many there are, and how many of them fit. */
    public function summary(): string
    {
        return match (true) {
            $this->fits() < $this->all => number_format($this->fits()).' of '.number_format($this->all).' FTP users',
            $this->all === 1 => '1 FTP user',
            default => number_format($this->all).' FTP users',
        };
    }

    /** @return array<string, string> what the matrix can be narrowed to, and what that is called */
    public static function filters(): array
    {
        $filters = ['account' => 'whole account', 'clients' => 'two clients', 'sites' => 'several sites'];
        foreach (self::OTHERS as $flag) {
            $filters[$flag->value] = $flag->label();
        }

        return $filters;
    }

    public function fits(): int
    {
        return count($this->fit);
    }

    public function pages(): int
    {
        return (int) max(1, ceil(count($this->fit) / self::AT_ONCE));
    }

    public function url(?string $only, int $page = 1, string $path = '/reach'): string
    {
        $query = array_filter(
            [
                'q' => $this->words,
                'only' => $only ?? '',
                'idle' => $this->idleAfter === (int) config('cellarium.idle_days') ? '' : (string) $this->idleAfter,
                'page' => $page === 1 ? '' : (string) $page,
            ],
            static fn (string $value): bool => $value !== '',
        );

        return $path.($query === [] ? '' : '?'.http_build_query($query));
    }

    /** @return \Generator<int, list<string>> */
    public function lines(): \Generator
    {
        foreach (array_chunk($this->fit, 5000) as $part) {
            // Rows and no models: of thousands, making each a model takes longer than all the rest.
            $users = DB::table('ftp_users')
                ->join('accounts', 'accounts.id', '=', 'ftp_users.account_id')
                ->join('clients', 'clients.id', '=', 'accounts.client_id')
                ->whereIn(
                    'ftp_users.id',
                    array_map(static fn (LoginScope $login): int|string => $login->login->key, $part),
                )
                ->get([
                    'ftp_users.id',
                    'ftp_users.login',
                    'ftp_users.directory',
                    'ends',
                    'ends_reason',
                    'closes_at',
                    'accounts.host',
                    'clients.name',
                ])
                ->keyBy('id');
            foreach ($part as $login) {
                $user = $users->get($login->login->key);
                if ($user !== null) {
                    yield self::line($login, $user);
                }
            }
        }
    }

    /** @return list<string> */
    private static function line(LoginScope $login, \stdClass $user): array
    {
        return [
            $user->name,
            $user->host,
            $user->login,
            $user->directory,
            implode(
                '; ',
                array_map(
                    static fn (SiteReach $site): string => "$site->domain ({$site->extent->value})",
                    $login->reach->touched(),
                ),
            ),
            (string) count($login->reach->clients()),
            implode('; ', array_map(static fn (Flag $flag): string => $flag->label(), $login->flags)),
            (string) $login->idleDays,
            FtpUser::endsIn(
                Closing::from($user->ends),
                $user->ends_reason,
                $user->closes_at === null ? null : new \DateTimeImmutable($user->closes_at),
            ),
        ];
    }

    /** @return Collection<int, int> accounts whose client, host or sites have these words, by their number */
    private static function accountsOf(string $words): Collection
    {
        $like = '%'.addcslashes($words, '%_\\').'%';

        return DB::table('accounts')
            ->join('clients', 'clients.id', '=', 'accounts.client_id')
            ->where(
                static fn ($any) => $any
                    ->where('clients.name', 'like', $like)
                    ->orWhere('accounts.host', 'like', $like)
                    ->orWhere('accounts.label', 'like', $like)
                    ->orWhereExists(
                        static fn ($sites) => $sites
                            ->selectRaw('1')
                            ->from('sites')
                            ->whereColumn('sites.account_id', 'accounts.id')
                            ->where('sites.domain', 'like', $like),
                    ),
            )
            ->pluck('accounts.id')
            ->flip();
    }
}
