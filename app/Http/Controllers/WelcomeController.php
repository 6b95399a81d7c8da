<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\People\Passwords;
use App\People\People;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\ValidationException;

/** The page behind the link of an invitation: whoever has it chooses their password, once. */
final class WelcomeController
{
    private const GONE = 'This link was used already, was replaced by a newer one, or its time is over. Ask a '
        .'maintainer for another.';

    /** The code stands behind the "#" of the link, which browsers send to nobody; looking uses nothing up. */
    public function show(): Response
    {
        return response()->view('welcome', [], 200, ['Referrer-Policy' => 'no-referrer', 'X-Robots-Tag' => 'noindex']);
    }

    public function choose(Request $request, People $people, Passwords $passwords): RedirectResponse
    {
        $given = $request->validate(
            [
                'code' => ['required', 'string', 'max:200'],
                'password' => ['required', 'string', 'max:'.Passwords::MAXIMUM_LENGTH, 'confirmed'],
            ],
            [
                'code.*' => 'The link is not whole: its end, behind the “#”, is missing.',
                'password.confirmed' => 'The two passwords are not the same.',
                'password.*' => 'Choose a password.',
            ],
        );
        $person = $people->invited($given['code']);
        $objection = $person === null ? null : $passwords->objection($person, $given['password']);
        $objection === null || throw ValidationException::withMessages(['password' => $objection]);
        if ($person === null || ! $people->choosePassword($given['code'], $given['password'])) {
            throw ValidationException::withMessages(['code' => self::GONE]);
        }

        return redirect('/sign-in')->with('done', "Your password is set, $person->name. Sign in with it.");
    }
}
