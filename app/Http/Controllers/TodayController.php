<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Account;
use App\Models\Client;
use App\Today\Concerns;
use App\View\Shelf;
use Illuminate\Contracts\View\View;

final class TodayController
{
    public function __invoke(): View
    {
        $clients = Client::with(['accounts.sites.lastBackup', 'accounts.sites.lastDeployment', 'accounts.ftpUsers' => static fn ($query) => $query->where('state', '!=', 'closed')])->orderBy('name')->get();
        $accounts = $clients->flatMap(static fn (Client $client) => $client->accounts->each(static fn (Account $account) => $account->setRelation('client', $client)));
        $concerns = Concerns::over($accounts);

        return view('today', [
            'concerns' => $concerns,
            'shelves' => $clients->filter(static fn (Client $client): bool => $client->accounts->isNotEmpty())->map(static fn (Client $client): Shelf => Shelf::of($client)),
            'sites' => $accounts->sum(static fn (Account $account): int => $account->sites->count()),
            'troubled' => collect($concerns)->pluck('about')->unique()->count(),
        ]);
    }
}
