<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Writes down which page took long, by its route and never by what was asked with it. */
final class SlowRequests
{
    private float $began = 0.0;

    public function handle(Request $request, Closure $next): Response
    {
        $this->began = hrtime(true) / 1e9;

        return $next($request);
    }

    public function terminate(Request $request): void
    {
        $seconds = hrtime(true) / 1e9 - $this->began;
        if ($this->began > 0.0 && $seconds >= (float) config('cellarium.slow_seconds')) {
            logger()->warning(sprintf(
                'Slow: %s /%s took %.1f s, %d MB',
                $request->method(),
                $request->route()?->uri() ?? '…',
                $seconds,
                intdiv(memory_get_peak_usage(true), 1_000_000),
            ));
        }
    }
}
