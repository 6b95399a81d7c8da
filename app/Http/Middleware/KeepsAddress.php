<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Record\Record;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Context;
use Symfony\Component\HttpFoundation\Response;

/** From where somebody asks goes along with all that is done for them, by workers too, into the record. */
final class KeepsAddress
{
    public function handle(Request $request, Closure $next): Response
    {
        Context::add(Record::ADDRESS, $request->ip());

        return $next($request);
    }
}
