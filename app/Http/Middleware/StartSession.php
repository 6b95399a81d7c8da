<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Illuminate\Session\DatabaseSessionHandler;
use Illuminate\Session\Middleware\StartSession as StartsEverySession;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\Response;

/**
 * A page asks for parts of itself, pictures and whether it may send something while the next page is on its way: such a
 * request takes nothing of what is to be said there, and writes over nothing that was written meanwhile.
 */
final class StartSession extends StartsEverySession
{
    /** Asked by the web server before it reads a body. */
    private const DOOR = 'signed-in';

    protected function handleStatefulRequest(Request $request, $session, Closure $next): Response
    {
        if (! self::isBeside($request)) {
            return parent::handleStatefulRequest($request, $session, $next);
        }
        $request->setLaravelSession($this->startSession($request, $session));
        $before = [$session->getId(), $session->all()];
        $response = $next($request);
        $this->addCookieToResponse($response, $session);
        if ([$session->getId(), $session->all()] !== $before) {
            $this->saveSession($request);
        } elseif ($session->getHandler() instanceof DatabaseSessionHandler) {
            // Whoever watches is there.
            DB::table((string) config('session.table'))
                ->where('id', $session->getId())
                ->update(['last_activity' => now()->getTimestamp()]);
        }

        return $response;
    }

    private static function isBeside(Request $request): bool
    {
        $isPart = $request->header('HX-Request') === 'true'
            // What a browser fetches for (Fetch Metadata Request Headers): a page is a document.
            || $request->header('Sec-Fetch-Dest', 'document') !== 'document';

        return $request->isMethodCacheable() && ($isPart || $request->path() === self::DOOR);
    }
}
