<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\People\SessionBond;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\Response;

/** In front of secrets, people and what lets accounts go: whoever sits there now shows that it is still them. */
final class FreshSignIn
{
    public function handle(Request $request, Closure $next): Response
    {
        if ((new SessionBond($request->session()))->isFresh()) {
            return $next($request);
        }
        // What was sent is not kept for later: it may hold a secret. The page it was sent from is come back to.
        $from = $request->isMethod('GET')
            ? $request->getRequestUri()
            : Str::after(url()->previous('/'), url('/'));
        $ours = str_starts_with($from, '/') && ! str_starts_with($from, '//');
        $request->session()->put('back_to', $ours ? $from : '/');

        return SignedIn::leadTo(
            $request,
            '/sign-in/again',
            'Show that it is you, since you signed in a while ago.'
                .($request->isMethod('GET') ? '' : ' Then do it once more; nothing was changed.'),
        );
    }
}
