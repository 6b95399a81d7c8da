<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\AccountForm;
use App\Accounts\MarkedLetter;
use App\Accounts\TryAccount;
use App\Errands\Errands;
use App\Models\Account;
use App\Models\Client;
use App\Models\Errand;
use App\Models\RecordKind;
use App\Record\Record;
use App\Work\TaskName;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Letter\LetterReader;
use Cellarium\Core\Letter\LetterText;
use Cellarium\Core\Manifest\StartPages;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Arr;
use Illuminate\Support\Facades\DB;

/** Takes accounts on from letters and by hand, changes them, and tries what was typed without keeping it. */
final class AccountFormController
{
    private const MOST_LETTER = 200_000;

    /** What of an account connecting takes. */
    private const TRIED = [
        'host',
        'port',
        'protocol',
        'login',
        'secret',
        'address',
        'pin',
        'private_key',
        'start_directory',
        'active_mode',
    ];

    public function new(Request $request): Response
    {
        return $this->tried($request, null) ?? $this->form(AccountForm::empty(), null);
    }

    public function edit(Request $request, Account $account): Response
    {
        return $this->tried($request, $account) ?? $this->form(AccountForm::fromAccount($account), $account);
    }

    public function letter(Request $request): Response
    {
        $text = mb_substr($request->string('letter')->toString(), 0, self::MOST_LETTER);
        $accounts = LetterReader::read($text);
        $chosen = min(max(0, $request->integer('number')), max(0, count($accounts) - 1));
        $form = $accounts === [] ? AccountForm::empty() : AccountForm::fromLetter($accounts[$chosen]);

        return $this->form($form, null, [
            'letter' => $text,
            'undone' => LetterText::undone($text),
            'marked' => MarkedLetter::fromPasted($text, $accounts[$chosen] ?? null),
            'accounts' => $accounts,
            'chosen' => $chosen,
        ]);
    }

    public function create(Request $request): Response|RedirectResponse
    {
        return $this->keep($request, new Account, null);
    }

    public function update(Request $request, Account $account): Response|RedirectResponse
    {
        return $this->keep($request, $account, $account);
    }

    private function keep(Request $request, Account $account, ?Account $known): Response|RedirectResponse
    {
        $form = AccountForm::typed($request->post());
        $values = $form->values($known);
        $client = $form->client();
        $site = $known === null ? $form->site() : null;
        if ($values === null || $client === null || $form->wrong !== []) {
            return $this->form($form, $known, status: 422);
        }
        if ($request->string('act')->toString() === 'try') {
            return $this->try($form, $values, $known);
        }
        DB::transaction(function () use ($account, $client, $values, $site, $known): void {
            $client->save();
            $account->fill($values + ['client_id' => $client->id]);
            // Typed in again, the same password counts for the new place.
            (isset($values['secret']) || isset($values['private_key'])) && $account->bindSecrets();
            if (
                $known !== null
                && $account->isDirty([
                    'host',
                    'port',
                    'protocol',
                    'login',
                    'secret',
                    'address',
                    'pin',
                    'private_key',
                    'start_directory',
                ])
            ) {
                // What was found out is about the account as it was.
                $account->fill(
                    [
                        'ladder' => null,
                        'trouble' => null,
                        'tried_at' => null,
                        'reached_at' => null,
                        'next_secret' => null,
                    ] + ($account->isDirty('host') ? ['known_address' => null] : []),
                );
            }
            $account->save();
            $account->setRelation('client', $client);
            if ($site !== null) {
                $account
                    ->sites()
                    ->create(
                        $site + [
                            'base_url' => "https://{$site['domain']}",
                            'start_pages' => StartPages::USUAL,
                            'kept' => ['uploads/'],
                        ],
                    );
            }
            Record::write(
                $known === null ? RecordKind::AccountAdded : RecordKind::AccountChanged,
                ($known === null ? 'Added ' : 'Changed ')."$account->login at $account->host",
                $account,
            );
        });

        return redirect("/accounts/$account->id")->with(
            'done',
            $known === null ? 'The account is known now. Connect to see whether it works.' : 'Saved.',
        );
    }

    /**
     * A worker tries it; what was typed is kept encrypted meanwhile and forgotten once it is shown again.
     *
     * @param  array<string, mixed>  $values
     */
    private function try(AccountForm $form, array $values, ?Account $known): RedirectResponse
    {
        $values += ['secret' => $known->secret ?? '', 'private_key' => $known?->private_key];
        $values['protocol'] =
            $values['protocol'] instanceof Protocol ? $values['protocol']->value : $values['protocol'];
        $errand = Errands::start(
            TryAccount::class,
            $known === null ? '/accounts/new' : "/accounts/$known->id/edit",
            $known,
            ['values' => Arr::only($values, self::TRIED), 'typed' => $form->typed],
        );
        $errand->update(['back' => "$errand->back?tried=$errand->id"]);

        return Errands::answer($errand);
    }

    /** The form as it was typed, with what trying it has shown. */
    private function tried(Request $request, ?Account $known): ?Response
    {
        $errand = Errand::where([
            'id' => $request->integer('tried'),
            'kind' => TaskName::forTask(TryAccount::class),
            'person_id' => $request->user()?->id,
        ])->first();
        if ($errand === null || ! $errand->state->hasEnded()) {
            return null;
        }
        $form = AccountForm::typed((array) ($errand->given['typed'] ?? []));
        $rungs = $errand->result['rungs'] ?? null;
        $more = [
            'rungs' => $rungs,
            'held' => $errand->result['held'] ?? false,
            'pin' => $errand->given['values']['pin'] ?? null,
        ];
        $errand->delete();

        return $this->form($form, $known, $more);
    }

    /** @param  array<string, mixed>  $more */
    private function form(AccountForm $form, ?Account $account, array $more = [], int $status = 200): Response
    {
        return response()->view(
            'account-form',
            $more + [
                'form' => $form,
                'account' => $account,
                'clients' => Client::orderBy('name')->get(['id', 'name', 'colour']),
                'letter' => '',
                'undone' => [],
                'marked' => null,
                'accounts' => [],
                'chosen' => 0,
                'rungs' => null,
                'held' => false,
                'pin' => null,
            ],
            $status,
        );
    }
}
