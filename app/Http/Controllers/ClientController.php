<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Client;
use App\Models\RecordKind;
use App\Record\Record;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

/** Name, colour, group and notes of a client. */
final class ClientController
{
    public function edit(Client $client): View|RedirectResponse
    {
        if ($client->isRemoved()) {
            return redirect("/removals/clients/$client->id");
        }

        return view('client', [
            'client' => $client->load('accounts.sites'),
            'groups' => Client::where('group', '!=', '')->distinct()->orderBy('group')->pluck('group'),
        ]);
    }

    public function update(Request $request, Client $client): RedirectResponse
    {
        $client->update(
            array_map(
                static fn (?string $value): string => trim((string) $value),
                $request->validate(
                    [
                        'name' => [
                            'required',
                            'string',
                            'max:200',
                            Rule::unique('clients', 'name')->whereNull('removed_at')->ignore($client),
                        ],
                        'colour' => ['required', 'regex:/\A#[0-9a-f]{6}\z/i'],
                        'group' => 'nullable|string|max:100',
                        'notes' => 'nullable|string|max:10000',
                    ],
                    ['name.unique' => 'Another client has this name.'],
                ),
            ),
        );
        Record::write(RecordKind::ClientChanged, "Changed the client $client->name", $client);

        return redirect("/clients/$client->id")->with('done', "$client->name is saved.");
    }
}
