<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Hosting\AskingHosts;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** While a page is answered no host is asked; see AskingHosts. */
final readonly class AsksNoHost
{
    public function __construct(private AskingHosts $hosts)
    {
    }

    public function handle(Request $request, Closure $next): Response
    {
        $this->hosts->beginPage();
        try {
            return $next($request);
        } finally {
            $this->hosts->endPage();
        }
    }
}
