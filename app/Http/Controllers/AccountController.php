<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\AccountCheck;
use App\Models\Account;
use App\Models\Site;
use App\View\ReachMap;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;

final class AccountController
{
    public function index(): View
    {
        return view('accounts', [
            'accounts' => Account::with(['client', 'sites' => static fn ($query) => $query->with('lastBackup')->orderBy('domain'), 'ftpUsers' => static fn ($query) => $query->where('state', '!=', 'closed')])->get()->sortBy(['client.name', 'host'])->values(),
        ]);
    }

    public function show(Account $account): View
    {
        $account->load(['client', 'sites.lastBackup', 'sites.lastDeployment.package', 'ftpUsers' => static fn ($query) => $query->orderBy('created_at')->orderBy('id')->with('proofs')]);
        $account->ftpUsers->each(static fn ($user) => $user->setRelation('account', $account));
        $handed = session('handed_over');
        $last = $account->ftpUsers->sortByDesc('updated_at')->first();

        return view('account', [
            'account' => $account,
            'map' => ReachMap::of($account),
            'handed' => is_array($handed) && $handed['account'] === $account->id ? $handed : null,
            'last' => $last,
        ]);
    }

    public function connect(Account $account, AccountCheck $check): RedirectResponse
    {
        $account->load('client', 'sites');
        $holds = $check->connect($account);

        return redirect("/accounts/$account->id")->with($holds ? 'done' : 'trouble', $holds ? 'Connected; every rung held.' : 'It does not connect; the ladder below says where it breaks.');
    }

    public function proveRoot(Site $site, AccountCheck $check): RedirectResponse
    {
        $site->load('account.client');
        $step = $check->proveRoot($site);

        return redirect("/accounts/$site->account_id")->with($step->ok ? 'done' : 'trouble', "$step->sentence. $step->next");
    }
}
