<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Account;
use App\Models\FtpUserState;
use Illuminate\Contracts\Pagination\LengthAwarePaginator;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** The accounts that fit what was typed and chosen, in the order asked for, a page at a time. */
final readonly class AccountTable
{
    public const AT_ONCE = 50;

    /** Column to sort by and its words. */
    public const ORDERS = [
        'client' => 'Client',
        'site' => 'Sites',
        'host' => 'Host and login',
        'connection' => 'Connection',
        'space' => 'Space',
        'users' => 'FTP users open',
        'used' => 'Last used',
    ];

    public const ONLY = [
        'unreached' => 'does not connect',
        'untried' => 'not tried yet',
        'plain' => 'not encrypted',
        'no-site' => 'has no site',
        'open' => 'FTP users open',
    ];

    /** @param  array<string, string>  $query  as in the address, without what is empty */
    private function __construct(public array $query)
    {
    }

    public static function fromRequest(Request $request): self
    {
        $query = [];
        foreach (['q', 'group', 'tag', 'only', 'sort', 'down'] as $name) {
            $value = mb_substr(trim($request->string($name)->toString()), 0, 100);
            $value === '' || $query[$name] = $value;
        }

        return new self($query);
    }

    public function get(string $name): string
    {
        return $this->query[$name] ?? '';
    }

    /** The address of the same table, something changed. */
    public function url(string $name, ?string $value): string
    {
        $query = array_filter(
            [$name => $value] + $this->query,
            static fn (?string $one): bool => $one !== null && $one !== '',
        );
        $name !== 'sort' || $value !== ($this->query['sort'] ?? 'client') || isset($this->query['down'])
            ? ($query = array_diff_key($query, $name === 'sort' ? ['down' => ''] : []))
            : ($query['down'] = '1');

        return '/accounts'.($query === [] ? '' : '?'.http_build_query($query));
    }

    /**
     * @param  int  $fit  how many fit, of counts()
     * @return LengthAwarePaginator<int, Account>
     */
    public function page(int $fit): LengthAwarePaginator
    {
        $down = $this->get('down') === '1' ? 'desc' : 'asc';
        $open = DB::table('ftp_users')
            ->whereColumn('account_id', 'accounts.id')
            ->whereNotIn('state', FtpUserState::ENDED);
        $query = Account::query()
            ->select([
                'accounts.id',
                'accounts.client_id',
                'accounts.label',
                'accounts.company',
                'accounts.host',
                'accounts.port',
                'accounts.protocol',
                'accounts.login',
                'accounts.tags',
                'accounts.notes',
                'accounts.space_used',
                'accounts.space_limit',
                'accounts.reached_at',
                'accounts.tried_at',
                'accounts.trouble',
                'accounts.used_at',
            ])
            ->join('clients', 'clients.id', '=', 'accounts.client_id')
            ->with([
                'client',
                'sites' => static fn ($sites) => $sites
                    ->select(['id', 'account_id', 'domain', 'placeholder', 'last_backup_at', 'backup_promised_at'])
                    ->orderBy('domain'),
                'ftpUsers' => static fn ($users) => $users
                    ->whereNotIn('state', FtpUserState::ENDED)
                    ->orderBy('closes_at'),
            ]);
        $this->filter($query);
        match ($this->get('sort')) {
            'site' => $query->orderBy(
                DB::table('sites')
                    ->selectRaw('MIN(domain)')
                    ->whereColumn('account_id', 'accounts.id')
                    ->whereNull('removed_at'),
                $down,
            ),
            'host' => $query->orderBy('accounts.host', $down)->orderBy('accounts.login', $down),
            'connection' => $query
                ->orderByRaw("(accounts.trouble IS NULL) $down")
                ->orderBy('accounts.reached_at', $down),
            'space' => $query->orderByRaw("(accounts.space_used / NULLIF(accounts.space_limit, 0)) $down"),
            'users' => $query->orderBy($open->selectRaw('COUNT(*)'), $down),
            'used' => $query->orderBy('accounts.used_at', $down === 'asc' ? 'desc' : 'asc'),
            default => $query->orderBy('clients.name', $down),
        };

        return $query
            ->orderBy('clients.name')
            ->orderBy('accounts.id')
            ->paginate(self::AT_ONCE, total: $fit)
            ->withQueryString();
    }

    /** @return array{int, int} accounts that fit, and all there are */
    public function counts(): array
    {
        $query = Account::query()->join('clients', 'clients.id', '=', 'accounts.client_id');
        $this->filter($query);

        return [$query->count(), Account::count()];
    }

    /** @param  Builder<Account>  $query */
    private function filter(Builder $query): void
    {
        foreach (preg_split('/\s+/', $this->get('q'), -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            $like = '%'.addcslashes($word, '%_\\').'%';
            $query->where(
                static fn (Builder $any) => $any
                    ->where('clients.name', 'like', $like)
                    ->orWhere('accounts.host', 'like', $like)
                    ->orWhere('accounts.login', 'like', $like)
                    ->orWhere('accounts.label', 'like', $like)
                    ->orWhere('accounts.notes', 'like', $like)
                    ->orWhere('clients.notes', 'like', $like)
                    ->orWhereExists(
                        static fn ($sites) => $sites
                            ->selectRaw('1')
                            ->from('sites')
                            ->whereColumn('sites.account_id', 'accounts.id')
                            ->whereNull('sites.removed_at')
                            ->where('sites.domain', 'like', $like),
                    ),
            );
        }
        $this->get('group') === '' || $query->where('clients.group', $this->get('group'));
        $this->get('tag') === '' || $query->whereJsonContains('accounts.tags', $this->get('tag'));
        match ($this->get('only')) {
            'unreached' => $query->whereNotNull('accounts.trouble'),
            'untried' => $query->whereNull('accounts.tried_at'),
            'plain' => $query->where('accounts.protocol', 'ftp'),
            'no-site' => $query->whereNotExists(
                static fn ($sites) => $sites
                    ->selectRaw('1')
                    ->from('sites')
                    ->whereColumn('sites.account_id', 'accounts.id')
                    ->whereNull('sites.removed_at'),
            ),
            'open' => $query->whereExists(
                static fn ($users) => $users
                    ->selectRaw('1')
                    ->from('ftp_users')
                    ->whereColumn('ftp_users.account_id', 'accounts.id')
                    ->whereNotIn('state', FtpUserState::ENDED),
            ),
            default => null,
        };
    }
}
