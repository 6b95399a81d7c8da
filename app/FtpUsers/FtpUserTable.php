<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\Closing;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use Illuminate\Contracts\Pagination\LengthAwarePaginator;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\Request;

/** Everything that is open, oldest first, a page at a time. */
final readonly class FtpUserTable
{
    public const AT_ONCE = 60;

    public const ONLY = [
        '' => 'all that can sign in',
        'overdue' => 'past their time',
        'today' => 'close today',
        'never' => 'never close',
        'idle' => 'idle',
        'unproven' => 'not proven',
        'waiting' => 'wait for somebody',
        'ended' => 'closed and removed',
    ];

    private function __construct(public string $words, public string $only)
    {
    }

    public static function fromRequest(Request $request): self
    {
        $only = $request->string('only')->toString();

        return new self(
            mb_substr(trim($request->string('q')->toString()), 0, 100),
            isset(self::ONLY[$only]) ? $only : '',
        );
    }

    /** @return LengthAwarePaginator<int, FtpUser> */
    public function page(): LengthAwarePaginator
    {
        $query = FtpUser::with(['account.client', 'account.sites', 'account.shared.other.sites', 'person']);
        $like = '%'.addcslashes($this->words, '%_\\').'%';
        $this->words === ''
            || $query->where(
                static fn (Builder $any) => $any
                    ->where('login', 'like', $like)
                    ->orWhere('purpose', 'like', $like)
                    ->orWhere('directory', 'like', $like)
                    ->orWhereHas(
                        'account',
                        static fn (Builder $account) => $account
                            ->where('host', 'like', $like)
                            ->orWhereHas(
                                'client',
                                static fn (Builder $client) => $client->where('name', 'like', $like),
                            ),
                    )
                    ->orWhereHas('person', static fn (Builder $person) => $person->where('name', 'like', $like)),
            );
        $this->only === 'ended'
            ? $query->whereIn('state', FtpUserState::ENDED)->latest('closed_at')->latest('id')
            : $query->alive()->oldest('created_at')->oldest('id');
        $idle = now()->subDays((int) config('cellarium.idle_days'));
        match ($this->only) {
            'overdue' => $query->where('closes_at', '<', now()),
            'today' => $query->whereBetween('closes_at', [now(), now()->endOfDay()]),
            'never' => $query->where('ends', Closing::Never),
            'idle' => $query->whereRaw('COALESCE(used_at, created_at) < ?', [$idle]),
            'unproven' => $query->where(
                static fn (Builder $either) => $either->whereNull('reach_proven_at')->orWhereNotNull('proof_failed_at'),
            ),
            'waiting' => $query->whereNotNull('pending'),
            default => null,
        };

        return $query->paginate(self::AT_ONCE)->withQueryString();
    }
}
