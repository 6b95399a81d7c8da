<?php

declare(strict_types=1);

namespace App\Today;

use App\Models\Client;
use App\Models\FtpUserState;
use Illuminate\Database\Eloquent\Builder;

/** The shelves of all clients, read a part at a time, so that only what is seen is drawn. */
final readonly class ShelfPage
{
    private const AT_ONCE = 12;

    /** @param  list<ClientShelf>  $shelves */
    private function __construct(
        public array $shelves,
        public ?int $next,
        public string $group,
        public string $words,
    ) {
    }

    /**
     * @param  int  $from  shelves before this part
     * @param  string  $group  only clients of this group; "" for all
     * @param  string  $words  part of a client's name or of a domain; "" for all
     */
    public static function part(int $from, string $group, string $words): self
    {
        $like = '%'.addcslashes($words, '%_\\').'%';
        $clients = Client::with([
            'accounts' => static fn ($query) => $query->select(['id', 'client_id', 'label', 'host', 'space_limit']),
            'accounts.sites',
            'accounts.ftpUsers' => static fn ($query) => $query->whereNotIn('state', FtpUserState::ENDED),
        ])
            ->has('accounts')
            ->when($group !== '', static fn (Builder $query) => $query->where('group', $group))
            ->when(
                $words !== '',
                static fn (Builder $query) => $query->where(
                    static fn (Builder $either) => $either
                        ->where('name', 'like', $like)
                        ->orWhereHas('sites', static fn (Builder $sites) => $sites->where('domain', 'like', $like)),
                ),
            )
            ->orderBy('group')
            ->orderBy('name')
            ->offset($from)
            ->limit(self::AT_ONCE + 1)
            ->get();

        return new self(
            $clients
                ->take(self::AT_ONCE)
                ->map(static fn (Client $client): ClientShelf => ClientShelf::forClient($client))
                ->values()
                ->all(),
            $clients->count() > self::AT_ONCE ? $from + self::AT_ONCE : null,
            $group,
            $words,
        );
    }

    /** Where the next part is. */
    public function nextUrl(string $as): string
    {
        return '/shelves?'
            .http_build_query(
                array_filter(
                    [
                        'as' => $as,
                        'from' => $this->next,
                        'group' => $this->group,
                        'words' => $this->words,
                    ],
                    static fn ($value): bool => $value !== '' && $value !== null,
                ),
            );
    }
}
