<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Behind TLS cookies are for TLS only, and bound to this host by the prefix of their name (RFC 6265bis, 4.1.3.2). */
final class CookiesBehindTls
{
    public function handle(Request $request, Closure $next): Response
    {
        config([
            'session.secure' => $request->isSecure(),
            'session.cookie' => $request->isSecure() ? '__Host-cellarium' : 'cellarium',
        ]);

        return $next($request);
    }
}
