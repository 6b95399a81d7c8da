<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\ApiToken;
use App\Models\TokenScope;
use App\People\ApiTokens;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;

/** Lets a program in by a token of a person (RFC 6750, 2.1), for what the token is for. */
final class TokenSignIn
{
    private const SEEN_EVERY_SECONDS = 60;

    public function handle(Request $request, Closure $next, string $scope): Response
    {
        $token = ApiTokens::find((string) $request->bearerToken());
        if ($token === null) {
            return self::refusal(401, 'This token is not known, ran out or is revoked. Make another one.');
        }
        if (! $token->scope->allows(TokenScope::from($scope))) {
            return self::refusal(403, "This token is to {$token->scope->words()}.");
        }
        Auth::setUser($token->person);
        $request->attributes->set(ApiToken::class, $token);
        if ($token->used_at === null || $token->used_at->diffInSeconds(now()) > self::SEEN_EVERY_SECONDS) {
            $token->update(['used_at' => now()]);
        }

        return $next($request);
    }

    private static function refusal(int $status, string $words): Response
    {
        return response()->json(['error' => $words], $status, $status === 401 ? ['WWW-Authenticate' => 'Bearer'] : []);
    }
}
