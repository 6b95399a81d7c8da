<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Site;
use App\Sites\OverTime;
use App\Text\When;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** What happened to a site, drawn over time, and the same as a table. */
final class OverTimeController
{
    private const USUAL_DAYS = 28;

    public function show(Request $request, Site $site): View
    {
        $site->load('account.client', 'client');
        $drawing = $this->drawing($request, $site);

        return $request->header('HX-Request') === 'true'
            ? view('parts.over-time', ['drawing' => $drawing])
            : view('over-time', ['site' => $site, 'drawing' => $drawing]);
    }

    public function csv(Request $request, Site $site): Response
    {
        $site->load('account.client', 'client');

        return response($this->drawing($request, $site)->csv(), 200, [
            'Content-Type' => 'text/csv; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"$site->domain-over-time.csv\"",
        ]);
    }

    private function drawing(Request $request, Site $site): OverTime
    {
        $asked = $request->validate([
            'days' => ['nullable', 'integer', 'in:'.implode(',', array_keys(OverTime::SPANS))],
            'until' => ['nullable', 'date'],
        ]);
        $until = CarbonImmutable::parse($asked['until'] ?? 'now')->min(CarbonImmutable::now());

        return new OverTime(
            $site,
            (int) ($asked['days'] ?? self::USUAL_DAYS),
            $until->setTimezone(When::zone()),
        );
    }
}
