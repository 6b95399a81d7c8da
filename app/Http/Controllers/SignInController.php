<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Person;
use App\Models\RecordKind;
use App\People\SignInGuard;
use App\Record\Record;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Hash;
use Illuminate\Validation\ValidationException;

final class SignInController
{
    /** The hash of no password that anybody has. */
    private const NOBODYS = '$2y$12$TOeBeF1cQhl8iOFlqPKWJuc7pRcPLbGfi3IlZnR243BmHeyakkzOm';

    public function show(): View
    {
        return view('sign-in');
    }

    public function signIn(Request $request): RedirectResponse
    {
        $given = $request->validate([
            'email' => ['required', 'string', 'max:200'],
            'password' => ['required', 'string', 'max:200'],
        ]);
        $email = SignInGuard::folded($given['email']);
        $found = Person::where('email', $email)->first();
        // The database finds letters that it takes for the same; who is meant has to be meant to the letter.
        $person = $found !== null && SignInGuard::folded($found->email) === $email ? $found : null;
        $address = (string) $request->ip();
        $guard = SignInGuard::for($person, $email, $address);
        if (($wait = $guard->wait()) > 0) {
            throw ValidationException::withMessages(['email' => "Too many tries. Wait $wait seconds."]);
        }
        if ($person === null || ! Auth::attempt(['id' => $person->id, 'password' => $given['password']])) {
            $person === null && Hash::check($given['password'], self::NOBODYS); // As slow as for somebody.
            $about = 'for '.mb_substr($email, 0, 100)." from $address";
            $blocked = $guard->failed();
            Record::write(
                RecordKind::SignInRefused,
                "A sign-in was refused $about".($blocked ? '; further tries have to wait now' : ''),
            );
            throw ValidationException::withMessages([
                'email' => 'This address and password do not belong together. Both are taken to the letter.',
            ]);
        }
        $guard->succeeded($person, $address);
        $request->session()->regenerate();
        Record::write(RecordKind::SignedIn, "Signed in from $address");

        return redirect()->intended('/');
    }

    public function signOut(Request $request): RedirectResponse
    {
        Auth::logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return redirect('/sign-in');
    }
}
