<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\ClientRequest;
use App\Models\ClientRequestKind;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;

/** Requests of clients' people to the agency, and their answers. */
final class AskController
{
    private const EACH = 100;

    private const LONGEST = 2000;

    /** A client's person may ask so often within a day; more is a script. */
    private const A_DAY = 50;

    public function index(): View
    {
        return view('requests', [
            'requests' => ClientRequest::with([
                'client',
                'person',
                'site',
                'answeredBy',
            ])
                ->orderByRaw('answered_at IS NOT NULL')
                ->orderByDesc('id')
                ->simplePaginate(self::EACH)
                ->withPath('/requests'),
        ]);
    }

    public function show(ClientRequest $asked): View
    {
        return view('request', ['asked' => $asked->load([
            'client',
            'person',
            'site.account',
            'answeredBy',
        ])]);
    }

    public function ask(Request $request): RedirectResponse
    {
        $person = $request->user();
        assert($person instanceof Person);
        $given = $request->validate(
            [
                'kind' => ['required', Rule::enum(ClientRequestKind::class)],
                'site' => ['nullable', 'integer'],
                'words' => ['required', 'string', 'max:'.self::LONGEST],
            ],
            [
                'kind.*' => 'Choose what you ask for.',
                'site.*' => 'Choose a site.',
                'words.required' => 'Write what it is about.',
                'words.*' => 'Write it in '.self::LONGEST.' characters or fewer.',
            ],
        );
        $client = $person->client_id;
        $site = isset($given['site']) ? Site::findOrFail((int) $given['site']) : null;
        if ($client === null && $site === null) {
            return redirect('/')->with('trouble', 'Only somebody of a client asks the agency. Nothing was asked.');
        }
        $lately = ClientRequest::where('person_id', $person->id)->where('created_at', '>', now()->subDay())->count();
        if ($lately >= self::A_DAY) {
            return redirect('/')->with(
                'trouble',
                'That is much for one day. The agency has what you asked so far; call them.',
            );
        }
        $asked = ClientRequest::create([
            'client_id' => $client ?? $site->owner()->id,
            'person_id' => $person->id,
            'site_id' => $site?->id,
            'kind' => $given['kind'],
            'words' => trim($given['words']),
        ]);
        Record::write(
            RecordKind::Asked,
            "$person->name asked for {$asked->kind->label()}: ".Str::limit($asked->words, 200),
            $site ?? $asked->client,
        );

        return redirect('/#asked')->with('done', 'The agency has it. The answer will stand here.');
    }

    public function answer(Request $request, ClientRequest $asked): RedirectResponse
    {
        $person = $request->user();
        assert($person instanceof Person);
        $given = $request->validate(
            ['answer' => ['required', 'string', 'max:'.self::LONGEST]],
            ['answer.*' => 'Write an answer in '.self::LONGEST.' characters or fewer.'],
        );
        // Of two who answer at once, the first one's answer stands.
        $answered = ClientRequest::whereKey($asked->id)
            ->whereNull('answered_at')
            ->update([
                'answered_at' => now(),
                'answered_by' => $person->id,
                'answer' => trim($given['answer']),
            ]);
        if ($answered !== 1) {
            return redirect("/requests/$asked->id")->with('trouble', 'Somebody has answered it already, see below.');
        }
        Record::write(
            RecordKind::Answered,
            "What {$asked->person->name} asked for was answered: ".Str::limit(trim($given['answer']), 200),
            $asked->site ?? $asked->client,
        );

        return redirect('/requests')->with('done', "{$asked->person->name} finds your answer on their first page.");
    }
}
