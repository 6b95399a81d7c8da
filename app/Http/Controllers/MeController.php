<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\OwnSettings;
use App\Models\Person;
use App\Models\RecordKind;
use App\People\Passwords;
use App\People\People;
use App\People\SecondFactor;
use App\People\SessionBond;
use App\People\SessionList;
use App\Record\Record;
use App\Today\ConcernKind;
use Cellarium\Core\People\OneTimeCode;
use Cellarium\Core\Words\Count;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;

/** Everybody's own: settings, password, second factor, where they are signed in. */
final class MeController
{
    private const NEW_KEY = 'new_second_factor';

    public function show(Request $request): View
    {
        $person = $this->person($request);

        return view('me', [
            'person' => $person,
            'kinds' => $person->role->isOfTheAgency() ? ConcernKind::cases() : [],
            'zones' => \DateTimeZone::listIdentifiers(),
            'sessions' => SessionList::forPerson($person, $request->session()->getId()),
            'needed' => SecondFactor::isNeeded($person),
            'mails' => $person->role->isOfTheAgency()
                ? [
                    'none' => 'nothing',
                    'now' => 'what needs a hand today',
                    'all' => 'everything that needs a hand',
                    'chosen' => 'only of these kinds',
                ]
                : ['none' => 'nothing', 'all' => 'answers to what we asked'],
        ]);
    }

    public function update(Request $request): RedirectResponse
    {
        $given = $request->validate(
            [
                'time_zone' => ['nullable', Rule::in(\DateTimeZone::listIdentifiers())],
                'clock' => ['required', Rule::in(['24', '12'])],
                'scheme' => ['required', Rule::in(OwnSettings::SCHEMES)],
                'mail' => ['required', Rule::in(OwnSettings::MAIL)],
                'kinds' => ['array'],
                'kinds.*' => [Rule::enum(ConcernKind::class)],
            ],
            [
                'time_zone.*' => 'Choose a time zone of the list.',
                'clock.*' => 'Choose 24 or 12 hours.',
                'scheme.*' => 'Choose a colour scheme.',
                'mail.*' => 'Choose what comes by e-mail.',
                'kinds.*' => 'Choose concerns of the list.',
            ],
        );
        $this->person($request)->update(['settings' => new OwnSettings(
            (string) ($given['time_zone'] ?? ''),
            $given['clock'] === '24',
            $given['scheme'],
            $given['mail'],
            array_values($given['kinds'] ?? []),
        )]);

        return redirect('/me')->with('done', 'Your settings are saved.');
    }

    public function password(Request $request, People $people, Passwords $passwords): RedirectResponse
    {
        $given = $request->validate(
            ['password' => ['required', 'string', 'max:'.Passwords::MAXIMUM_LENGTH, 'confirmed']],
            ['password.confirmed' => 'The two passwords are not the same.', 'password.*' => 'Choose a password.'],
        );
        $person = $this->person($request);
        $objection = $passwords->objection($person, $given['password']);
        $objection === null || throw ValidationException::withMessages(['password' => $objection]);
        $people->setPassword($person, $given['password']);
        $this->goOn($request, $person);

        return redirect('/me')->with('done', 'Your password is changed; you are signed out everywhere else.');
    }

    public function newSecondFactor(Request $request): View
    {
        $session = $request->session();
        $session->has(self::NEW_KEY) || $session->put(self::NEW_KEY, OneTimeCode::make()->toBase32()->reveal());

        return $this->secondFactor($request);
    }

    public function beginSecondFactor(Request $request): Response|RedirectResponse
    {
        $person = $this->person($request);
        $key = $request->session()->get(self::NEW_KEY);
        if (! is_string($key)) {
            return redirect('/me/second-factor');
        }
        $code = OneTimeCode::fromBase32($key);
        $typed = preg_replace('/\s+/', '', $request->string('code')->toString()) ?? '';
        $step = $code->stepOf($typed, now()->getTimestamp(), 0);
        if ($step === null) {
            throw ValidationException::withMessages(['code' => 'This is not the code the app shows now. If it stays '
                .'wrong, look at the clock of the device: it has to be right to half a minute.']);
        }
        $codes = SecondFactor::begin($person, $code, $step);
        $request->session()->forget(self::NEW_KEY);
        $this->goOn($request, $person);

        return response()->view('recovery-codes', ['codes' => $codes]);
    }

    public function endSecondFactor(Request $request): RedirectResponse
    {
        $person = $this->person($request);
        if (SecondFactor::isNeeded($person)) {
            return redirect('/me')->with(
                'trouble',
                'Your role needs a second factor. Set up another instead; the new one replaces this one.',
            );
        }
        SecondFactor::end($person);
        $this->goOn($request, $person);

        return redirect('/me')->with('done', 'Your second factor is off; you are signed out everywhere else.');
    }

    public function renewRecoveryCodes(Request $request): Response
    {
        return response()->view('recovery-codes', ['codes' => SecondFactor::renewCodes($this->person($request))]);
    }

    public function endSessions(Request $request): RedirectResponse
    {
        $person = $this->person($request);
        $which = $request->string('which')->toString();
        $ended = SessionList::forPerson($person, $request->session()->getId())->end($which);
        Record::write(
            RecordKind::SessionsEnded,
            "$person->name ended ".Count::words($ended, 'session').' of their own',
        );

        return redirect('/me#sessions')->with('done', Count::words($ended, 'session').' ended.');
    }

    private function secondFactor(Request $request): View
    {
        $person = $this->person($request);
        $key = OneTimeCode::fromBase32((string) $request->session()->get(self::NEW_KEY));

        return view('second-factor', [
            'person' => $person,
            'key' => implode(' ', str_split($key->toBase32()->reveal(), 4)),
            'uri' => $key->uri('Cellarium', $person->email)->reveal(),
        ]);
    }

    /** Everything of theirs ends where they are signed in elsewhere; here it goes on. */
    private function goOn(Request $request, Person $person): void
    {
        $person->refresh();
        (new SessionBond($request->session()))->freshen($person);
        SessionBond::endAll($person, $request->session()->getId());
    }

    private function person(Request $request): Person
    {
        $person = $request->user();
        assert($person instanceof Person);

        return $person;
    }
}
