<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Person;
use App\Models\RecordKind;
use App\People\Access;
use App\People\ApiTokens;
use App\People\SecondFactor;
use App\People\SessionBond;
use App\People\SignInGuard;
use App\Record\Record;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Cookie;
use Illuminate\Support\Facades\Hash;
use Illuminate\Validation\ValidationException;

/** In, by password and where there is one by second factor; in anew before secrets; and out. */
final class SignInController
{
    /** Between the password and the code of the second factor. */
    private const CODE_WITHIN_SECONDS = 300;

    private const HALFWAY = 'halfway';

    private const SMALL_BODY = 1_000_000;

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
        $guard = self::guard($request, $person, $email);
        self::letWait($guard, 'email');
        if (! self::knows($person, $given['password']) || $person?->isKeptOut() !== false) {
            self::refuse(
                $guard,
                'email',
                'for '.mb_substr($email, 0, 100),
                'This address and password do not belong together. Both are taken to the letter.',
            );
        }
        if (Hash::needsRehash((string) $person->password)) {
            $person->update(['password' => $given['password']]);
        }
        if (! $person->hasSecondFactor()) {
            return $this->letIn($request, $person, $guard);
        }
        $guard->takeBack();
        $request->session()->regenerate(true);
        $request->session()->put(self::HALFWAY, [
            'person' => $person->id,
            'at' => now()->getTimestamp(),
            'email' => $email,
        ]);

        return redirect('/sign-in/code');
    }

    public function askCode(Request $request): View|RedirectResponse
    {
        return $this->halfway($request) === null ? redirect('/sign-in') : view('sign-in-code');
    }

    public function takeCode(Request $request): RedirectResponse
    {
        $given = $request->validate(['code' => ['required', 'string', 'max:40']], ['code.*' => 'Write the code.']);
        $person = $this->halfway($request);
        if ($person === null) {
            return redirect('/sign-in')->with(
                'trouble',
                'The code came more than five minutes after the password. Begin again.',
            );
        }
        $guard = self::guard($request, $person, (string) $request->session()->get(self::HALFWAY)['email']);
        self::letWait($guard, 'code');
        SecondFactor::accepts($person, $given['code']) || self::refuse(
            $guard,
            'code',
            "for $person->name, whose password was right but the code was not",
            'This code is not right, or was used already. Wait for the next one, or take a recovery code.',
        );

        return $this->letIn($request, $person->refresh(), $guard);
    }

    public function showAgain(Request $request): View
    {
        return view('sign-in-again', ['person' => $request->user()]);
    }

    /** Whoever is signed in shows that it is still them. */
    public function again(Request $request): RedirectResponse
    {
        $person = $request->user();
        assert($person instanceof Person);
        $given = $request->validate(
            ['password' => ['required', 'string', 'max:200'], 'code' => ['nullable', 'string', 'max:40']],
            ['password.*' => 'Write your password.'],
        );
        $guard = self::guard($request, $person, $person->email);
        self::letWait($guard, 'password');
        $holds = self::knows($person, $given['password'])
            && (! $person->hasSecondFactor() || SecondFactor::accepts($person, (string) ($given['code'] ?? '')));
        $holds || self::refuse(
            $guard,
            'password',
            "for $person->name, who is signed in and was asked again",
            $person->hasSecondFactor()
                ? 'The password or the code is not right. A code works once; wait for the next one.'
                : 'That is not your password.',
        );
        self::remember($request, $person, $guard);
        $back = (string) $request->session()->pull('back_to', '/');
        (new SessionBond($request->session()))->freshen($person->refresh());

        return redirect($back);
    }

    /**
     * What the web server in front of the pages asks before it reads a body: 204 while somebody is signed in who may
     * send it, else 401. What is small is let through: the page itself says no, in words.
     */
    public function holds(Request $request, Access $access): Response
    {
        // It is no page that anybody was on, and none to go back to.
        $request->headers->set('X-Requested-With', 'XMLHttpRequest');
        $person = Person::viewer();
        $length = (string) $request->header('X-Asked-Length');
        $isSmall = ctype_digit($length) && strlen($length) < 12 && (int) $length < self::SMALL_BODY;
        $address = (string) $request->header('X-Asked-Address', '/');
        if (str_starts_with($address, '/api/')) {
            return response()->noContent(ApiTokens::find((string) $request->bearerToken()) === null ? 401 : 204);
        }
        $holds = $person !== null
            && (new SessionBond($request->session()))->ends($person) === null
            && ($isSmall || $access->takes($address, (string) $request->header('X-Asked-Method', 'GET')));

        return response()->noContent($holds ? 204 : 401);
    }

    public function signOut(Request $request): RedirectResponse
    {
        Record::write(RecordKind::SignedOut, 'Signed out');
        Auth::logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return redirect('/sign-in')->header('Clear-Site-Data', '"cache", "storage"');
    }

    private function letIn(Request $request, Person $person, SignInGuard $guard): RedirectResponse
    {
        self::remember($request, $person, $guard);
        $request->session()->forget(self::HALFWAY);
        (new SessionBond($request->session()))->begin($person);
        Record::write(
            RecordKind::SignedIn,
            'Signed in'.($person->hasSecondFactor() ? ', with the second factor' : ''),
            $person->client,
        );

        return redirect()->intended('/');
    }

    private static function guard(Request $request, ?Person $person, string $typed): SignInGuard
    {
        $device = $request->cookie(SignInGuard::DEVICE);

        return SignInGuard::for(
            $person,
            $typed,
            (string) $request->ip(),
            is_string($device) ? $device : null,
        );
    }

    /** Guesses of others keep nobody out of the device they have signed in with. */
    private static function remember(Request $request, Person $person, SignInGuard $guard): void
    {
        $device = $request->cookie(SignInGuard::DEVICE);
        Cookie::queue(Cookie::make(
            SignInGuard::DEVICE,
            $guard->succeeded($person, (string) $request->ip(), is_string($device) ? $device : null),
            SignInGuard::DEVICE_DAYS * 1440,
            '/sign-in',
            secure: $request->isSecure(),
            sameSite: 'strict',
        ));
    }

    /** Whose password was right, a short while ago. */
    private function halfway(Request $request): ?Person
    {
        $halfway = $request->session()->get(self::HALFWAY);
        $person = is_array($halfway) && now()->getTimestamp() - $halfway['at'] <= self::CODE_WITHIN_SECONDS
            ? Person::find($halfway['person'])
            : null;

        return $person?->isKeptOut() === false && ! $person->isInvited() ? $person : null;
    }

    /** As slow for nobody as for somebody. */
    private static function knows(?Person $person, #[\SensitiveParameter] string $password): bool
    {
        $own = $person?->password;
        if ($own === null) {
            Hash::make($password);

            return false;
        }

        return Hash::check($password, $own);
    }

    private static function letWait(SignInGuard $guard, string $field): void
    {
        if (($wait = $guard->take()) > 0) {
            throw ValidationException::withMessages([$field => "Too many tries. Wait $wait seconds."]);
        }
    }

    private static function refuse(SignInGuard $guard, string $field, string $about, string $words): never
    {
        $blocked = $guard->blocks();
        Record::write(
            RecordKind::SignInRefused,
            "A sign-in was refused $about".($blocked ? '; further tries have to wait now' : ''),
        );
        throw ValidationException::withMessages([$field => $words]);
    }
}
