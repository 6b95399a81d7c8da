<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\Person;
use App\People\SecondFactor;
use App\People\SessionBond;
use App\Text\When;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;

/** Behind "auth": whether the session may go on, and whether its person has the second factor they need. */
final class SignedIn
{
    private const SEEN_EVERY_SECONDS = 60;

    /** What may be done before the second factor is set up. */
    private const BEFORE_SECOND_FACTOR = ['me/second-factor', 'sign-out', 'sign-in/again'];

    public function handle(Request $request, Closure $next): Response
    {
        $person = $request->user();
        assert($person instanceof Person);
        $reason = (new SessionBond($request->session()))->ends($person);
        if ($reason !== null) {
            Auth::logout();
            $request->session()->invalidate();
            $request->session()->regenerateToken();

            return self::leadTo($request, '/sign-in', $reason);
        }
        if (SecondFactor::isMissing($person) && ! in_array($request->path(), self::BEFORE_SECOND_FACTOR, true)) {
            return self::leadTo($request, '/me/second-factor', SecondFactor::NEEDED);
        }
        When::follow($person->settings->timeZone, $person->settings->twentyFourHours);
        if ($person->seen_at === null || $person->seen_at->diffInSeconds(now()) > self::SEEN_EVERY_SECONDS) {
            Person::whereKey($person->id)->toBase()->update(['seen_at' => now()]);
        }

        try {
            return $next($request);
        } finally {
            When::follow('', true);
        }
    }

    /** A whole page, even where only a part of one was asked for. */
    public static function leadTo(Request $request, string $address, string $words): Response
    {
        $request->session()->flash('trouble', $words);

        return $request->header('HX-Request') === 'true'
            ? response('')->header('HX-Redirect', $address)
            : redirect($address);
    }
}
