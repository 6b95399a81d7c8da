<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use Illuminate\Http\Response;

/** A page for whoever holds a link: kept by no cache, found by no search, and its address is told to nobody. */
final class LinkPage
{
    /** @param  array<string, mixed>  $facts */
    public static function show(string $view, array $facts, int $status = 200): Response
    {
        return response()->view(
            $view,
            $facts,
            $status,
            [
                'Cache-Control' => 'no-store',
                'Referrer-Policy' => 'no-referrer',
                'X-Robots-Tag' => 'noindex',
            ],
        );
    }
}
