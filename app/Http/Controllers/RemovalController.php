<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Models\Account;
use App\Models\Client;
use App\Models\RemovableKind;
use App\Models\Site;
use App\Removal\Removal;
use App\Removal\RemovalImpact;
use App\Removal\Remove;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

/** Removes clients, accounts and sites from Cellarium, and brings them back within their time. */
final class RemovalController
{
    /** Days that backups may be kept, and how that is called; 0 is for ever. */
    public const KEEP = [
        30 => '30 days',
        90 => '90 days',
        365 => 'a year',
        1095 => 'three years',
        0 => 'for ever',
    ];

    public function index(): View
    {
        $since = now()->subDays(Removal::DAYS);

        return view('removals', [
            'groups' => [
                RemovableKind::Client->value => Client::onlyTrashed()
                    ->where('removed_at', '>', $since)
                    ->latest('removed_at')
                    ->get(),
                RemovableKind::Account->value => Account::onlyTrashed()
                    ->with('client')
                    ->whereHas('client', static fn ($client) => $client->withoutTrashed())
                    ->where('removed_at', '>', $since)
                    ->latest('removed_at')
                    ->get(),
                RemovableKind::Site->value => Site::onlyTrashed()
                    ->with('account.client')
                    ->whereHas('account', static fn ($account) => $account->withoutTrashed())
                    ->where('removed_at', '>', $since)
                    ->latest('removed_at')
                    ->get(),
            ],
        ]);
    }

    public function show(RemovableKind $kind, string $id): View
    {
        $subject = $this->subject($kind, $id);

        return view($subject->isRemoved() ? 'removed' : 'removal', [
            'kind' => $kind,
            'subject' => $subject,
            'client' => match (true) {
                $subject instanceof Client => $subject,
                $subject instanceof Account => $subject->client,
                default => $subject->account->client,
            },
            'name' => RemovalImpact::name($subject),
            'goes' => $subject->isRemoved() ? null : RemovalImpact::forSubject($subject),
            'until' => $subject->removed_at?->addDays(Removal::DAYS),
        ]);
    }

    public function remove(Request $request, RemovableKind $kind, string $id): RedirectResponse
    {
        $subject = $this->subject($kind, $id);
        $subject->isRemoved() && abort(404);
        $given = $request->validate([
            'users' => ['array'],
            'users.*' => [Rule::in(['close', 'leave'])],
            'keep' => ['required', Rule::in(array_keys(self::KEEP))],
        ]);
        $users = $given['users'] ?? [];

        return Errands::answer(Errands::start(
            Remove::class,
            "/removals/$kind->value/$id",
            $subject,
            [
                'kind' => $kind->value,
                'close' => array_keys($users, 'close', true),
                'leave' => array_keys($users, 'leave', true),
                'keep' => (int) $given['keep'],
            ],
        ));
    }

    public function undo(Request $request, RemovableKind $kind, string $id, Removal $removal): RedirectResponse
    {
        $subject = $this->subject($kind, $id);
        $removal->undo($subject, $request->user());

        return redirect(match ($kind) {
            RemovableKind::Client => '/accounts',
            RemovableKind::Account => "/accounts/$id",
            RemovableKind::Site => "/sites/$id",
        })->with('done', ucfirst(RemovalImpact::name($subject)).' is back, with all that went with it.');
    }

    private function subject(RemovableKind $kind, string $id): Client|Account|Site
    {
        return match ($kind) {
            RemovableKind::Client => Client::withTrashed()->with('accounts.sites', 'sites')->findOrFail((int) $id),
            RemovableKind::Account => Account::withTrashed()->with('client', 'sites')->findOrFail((int) $id),
            RemovableKind::Site => Site::withTrashed()->with('account.client', 'account.sites')->findOrFail((int) $id),
        };
    }
}
