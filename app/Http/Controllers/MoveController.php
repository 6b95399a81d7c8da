<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Models\Account;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\Person;
use App\Models\Site;
use App\Moves\AccountMove;
use App\Moves\AccountMover;
use App\Moves\MoveAccount;
use App\Runs\StartPlan;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** An account made anew at another host: what it holds beside what would be made there, then the plans that fill it. */
final class MoveController
{
    public function show(Request $request, Account $account): View
    {
        $asked = $request->validate(['to' => ['nullable', 'integer']]);
        $others = Account::where('client_id', $account->client_id)
            ->whereKeyNot($account->id)
            ->orderBy('host')
            ->get();
        $to = isset($asked['to']) ? $others->firstWhere('id', (int) $asked['to']) : null;
        $account->load('client', 'sites.destinations');
        $to?->load('client', 'sites', 'ftpUsers');
        $there = $to === null ? [] : $this->there($account, $to);

        return view('anew', [
            'account' => $account,
            'others' => $others,
            'to' => $to,
            'move' => $to === null ? null : new AccountMove($account, $to, old('directories', [])),
            'there' => $there,
            'ready' => count(array_filter($there, self::isReady(...))),
        ]);
    }

    public function carryOut(Request $request, Account $account): RedirectResponse
    {
        $asked = $request->validate(
            [
                'to' => ['required', 'integer'],
                'sites' => ['nullable', 'array', 'max:500'],
                'sites.*' => ['integer'],
                'users' => ['nullable', 'array', 'max:2000'],
                'users.*' => ['integer'],
                'directories' => ['nullable', 'array', 'max:500'],
                'directories.*' => [
                    'string',
                    'max:1000',
                    static fn (string $name, mixed $value, \Closure $fail) => RemotePath::tryFromString((string) $value)
                        !== null ?: $fail('Each site begins in a directory from the top, "/htdocs", without "..".'),
                ],
            ],
            ['to.*' => 'Choose the account at the other host.'],
        );
        $to = Account::with('client')->findOrFail((int) $asked['to']);
        AccountMover::check($account->load('client'), $to);

        return Errands::answer(Errands::start(
            MoveAccount::class,
            "/accounts/$account->id/anew?to=$to->id",
            $account,
            [
                'to' => $to->id,
                'sites' => array_map(intval(...), array_values($asked['sites'] ?? [])),
                'users' => array_map(intval(...), array_values($asked['users'] ?? [])),
                'directories' => $asked['directories'] ?? [],
            ],
        ));
    }

    /** All plans that fill what was made there and wait for nothing but their start. */
    public function start(Request $request, Account $account): RedirectResponse
    {
        $asked = $request->validate(['to' => ['required', 'integer']]);
        $to = Account::findOrFail((int) $asked['to']);
        $person = $request->user();
        $started = $person instanceof Person
            ? array_filter(
                $this->there($account, $to),
                static fn (array $one): bool => $one['plan'] !== null && StartPlan::start($one['plan'], $person),
            )
            : [];

        return redirect("/accounts/$account->id/anew?to=$to->id")->with(
            $started === [] ? 'trouble' : 'done',
            match (count($started)) {
                0 => 'No plan waits for its start: they are started already, or their questions come first.',
                1 => '1 plan started.',
                default => count($started).' plans started. One after the other is carried out.',
            },
        );
    }

    /** @return list<array{site: Site, plan: Deployment|null}> what was made there, and the newest plan that fills it */
    private function there(Account $from, Account $to): array
    {
        $sites = Site::where('account_id', $to->id)
            ->whereHas('stays', static fn ($query) => $query->where('account_id', $from->id))
            ->orderBy('domain')
            ->get();
        $plans = Deployment::with('site', 'fromBackup.site')
            ->whereIn('id', Deployment::selectRaw('MAX(id)')
                ->whereIn('site_id', $sites->pluck('id'))
                ->where('kind', DeploymentKind::RestoreBackup)
                ->groupBy('site_id'))
            ->get()
            ->keyBy('site_id');

        return array_values($sites->map(static fn (Site $site): array => [
            'site' => $site,
            'plan' => $plans[$site->id] ?? null,
        ])->all());
    }

    /** @param  array{site: Site, plan: Deployment|null}  $one */
    private static function isReady(array $one): bool
    {
        return $one['plan']?->state === DeploymentState::Planned
            && ($one['plan']->counts[Change::Asked->value]['files'] ?? 0) === 0;
    }
}
