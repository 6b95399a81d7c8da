<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Client;
use App\Models\Person;
use App\People\People;
use App\People\PersonFacts;
use App\People\SecondFactor;
use App\People\SessionList;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\People\Role;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** The people who work here: role, since when, second factor. */
final class PeopleController
{
    private const EACH = 100;

    public function __construct(private readonly People $people)
    {
    }

    public function index(Request $request): View
    {
        $closed = $request->boolean('closed');
        $words = trim(mb_substr($request->string('q')->toString(), 0, 100));
        $like = '%'.addcslashes($words, '%_\\').'%';

        return view('people', [
            'words' => $words,
            'people' => Person::with('client', 'links')
                ->when($words !== '', static fn ($query) => $query->where(
                    static fn ($any) => $any
                        ->where('name', 'like', $like)
                        ->orWhere('email', 'like', $like)
                        ->orWhereHas('client', static fn ($client) => $client->where('name', 'like', $like)),
                ))
                ->when($closed, static fn ($query) => $query->whereNotNull('closed_at'))
                ->unless($closed, static fn ($query) => $query->whereNull('closed_at'))
                ->orderByRaw("FIELD(role, 'maintainer', 'helper', 'clients_person')")
                ->orderBy('name')
                ->simplePaginate(self::EACH)
                ->withPath('/people')
                ->withQueryString(),
            'closed' => $closed,
            'others' => Person::when($closed, static fn ($query) => $query->whereNull('closed_at'))
                ->unless($closed, static fn ($query) => $query->whereNotNull('closed_at'))
                ->count(),
        ]);
    }

    public function new(): View
    {
        return $this->form(new Person(['role' => Role::Helper]));
    }

    public function invite(Request $request): Response
    {
        $facts = PersonFacts::fromForm($request->validate(PersonFacts::rules(null), PersonFacts::words()));
        $token = $this->people->invite($facts);

        return $this->link(Person::where('email', $facts->email)->firstOrFail(), $token);
    }

    public function show(Person $person): View
    {
        return $this->form($person);
    }

    public function update(Request $request, Person $person): RedirectResponse
    {
        $facts = PersonFacts::fromForm($request->validate(PersonFacts::rules($person->id), PersonFacts::words()));
        $this->people->change($person, $facts, $request->integer('revision'));

        return redirect('/people')->with('done', "What is known of $facts->name is saved.");
    }

    public function close(Request $request, Person $person): RedirectResponse
    {
        $this->people->close($person, $request->integer('revision'));

        return redirect('/people')->with(
            'done',
            "$person->name is closed and signed out everywhere. What is at work in their name goes on.",
        );
    }

    public function open(Request $request, Person $person): RedirectResponse
    {
        $this->people->open($person, $request->integer('revision'));

        return redirect("/people/$person->id")->with('done', "$person->name may sign in again.");
    }

    public function renewPassword(Request $request, Person $person): Response
    {
        return $this->link($person, $this->people->renewPassword($person, $request->integer('revision')));
    }

    public function dropSecondFactor(Request $request, Person $person): RedirectResponse
    {
        $this->people->dropSecondFactor($person, $request->integer('revision'));

        return redirect("/people/$person->id")->with(
            'done',
            "The second factor of $person->name is off"
                .(SecondFactor::isNeeded($person)
                    ? '; their role needs one, so they set up another at their next sign-in.'
                    : '.'),
        );
    }

    private function form(Person $person): View
    {
        return view('person', [
            'person' => $person,
            'clients' => Client::orderBy('name')->get(['id', 'name']),
            'sessions' => $person->exists ? count(SessionList::forPerson($person, '')->sessions) : 0,
            'waits' => $person->exists
                ? $person->links()->whereNull('used_at')->where('expires_at', '>', now())->latest('id')->first()
                : null,
        ]);
    }

    /** Shown this once: what is stored opens nothing. */
    private function link(Person $person, Secret $token): Response
    {
        return response()->view('person-link', [
            'person' => $person->refresh(),
            'link' => rtrim((string) config('app.url'), '/')."/welcome#{$token->reveal()}",
            'hours' => People::LINK_HOURS,
        ]);
    }
}
