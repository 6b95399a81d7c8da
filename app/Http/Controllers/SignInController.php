<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Record\Record;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Validation\ValidationException;

final class SignInController
{
    private const TRIES = 6;

    public function show(): View
    {
        return view('sign-in');
    }

    public function signIn(Request $request): RedirectResponse
    {
        $given = $request->validate(['email' => ['required', 'string', 'max:200'], 'password' => ['required', 'string', 'max:200']]);
        $key = 'sign-in:'.mb_strtolower($given['email']).'|'.$request->ip();
        if (RateLimiter::tooManyAttempts($key, self::TRIES)) {
            throw ValidationException::withMessages(['email' => 'Too many tries. Wait '.RateLimiter::availableIn($key).' seconds.']);
        }
        if (! Auth::attempt(['email' => $given['email'], 'password' => $given['password']])) {
            RateLimiter::hit($key, 60);
            Record::write('sign_in_refused', 'A sign-in was refused for '.mb_substr($given['email'], 0, 100));
            throw ValidationException::withMessages(['email' => 'This address and password do not belong together. Both are taken to the letter.']);
        }
        RateLimiter::clear($key);
        $request->session()->regenerate();
        Record::write('signed_in', 'Signed in');

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
