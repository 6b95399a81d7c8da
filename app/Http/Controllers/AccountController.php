<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\AccountTable;
use App\Accounts\AccountView;
use App\Accounts\AppliesRemedies;
use App\Accounts\ConnectAccount;
use App\Accounts\RenewPassword;
use App\Errands\Errands;
use App\Models\Account;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\SavedView;
use App\Models\Site;
use App\Reach\ReachMap;
use App\Work\Tasks;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

final class AccountController
{
    public function index(Request $request): View
    {
        $table = AccountTable::fromRequest($request);
        $counts = $table->counts();

        return view('accounts', [
            'table' => $table,
            'accounts' => $table->page($counts[0]),
            'counts' => $counts,
            'groups' => Client::where('group', '!=', '')->distinct()->orderBy('group')->pluck('group'),
            'tags' => Account::whereJsonLength('tags', '>', 0)
                ->toBase()
                ->distinct()
                ->pluck('tags')
                ->flatMap(static fn (string $tags): array => (array) json_decode($tags, true))
                ->unique()
                ->sort()
                ->values()
                ->all(),
            'removed' => Site::onlyTrashed()->exists() || Account::onlyTrashed()->exists(),
            'views' => SavedView::where('person_id', $request->user()->id)->orderBy('name')->get(),
        ]);
    }

    public function show(Account $account): View|RedirectResponse
    {
        if ($account->isRemoved()) {
            return redirect("/removals/accounts/$account->id");
        }
        $account->update(['used_at' => now()]);
        $account->load([
            'client',
            'sites.client',
            'shared.other.sites',
            ...Deployment::titled('sites.lastDeployment.'),
            'ftpUsers' => static fn ($query) => $query->orderBy('created_at')->orderBy('id'),
        ]);
        $account->ftpUsers->each(static fn ($user) => $user->setRelation('account', $account));

        return view('account', [
            'account' => $account,
            'view' => new AccountView($account),
            'map' => ReachMap::forAccount($account),
        ]);
    }

    public function connect(Account $account): RedirectResponse
    {
        if (! $account->isClimbing()) {
            $account->update(['climbing_at' => now(), 'ladder' => []]);
            Tasks::order(ConnectAccount::class, $account->id);
        }

        return redirect("/accounts/$account->id#ladder");
    }

    /** The worker sees it at the next rung. */
    public function cancel(Account $account): RedirectResponse
    {
        Account::whereKey($account->id)->update(['climbing_at' => null]);

        return redirect("/accounts/$account->id#ladder")->with(
            'done',
            'Cancelled. The rungs that were reached stand here; nothing was changed at the host.',
        );
    }

    public function ladder(Account $account): Response
    {
        // The rest of the page was drawn from what was known before; it is drawn anew once the top is reached.
        return $account->isClimbing()
            ? response(view('parts.ladder', ['account' => $account, 'view' => new AccountView($account)]))
            : response('')->header('HX-Refresh', 'true');
    }

    public function renewPassword(Account $account): RedirectResponse
    {
        return Errands::answer(Errands::start(RenewPassword::class, "/accounts/$account->id", $account));
    }

    public function remedy(Request $request, Account $account, AppliesRemedies $remedies): RedirectResponse
    {
        $remedies->apply($account, $request->string('change')->toString(), $request->string('value')->toString());

        return $this->connect($account->refresh());
    }
}
