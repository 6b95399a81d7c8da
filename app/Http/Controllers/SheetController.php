<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Failure\Problem;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\Sheet;
use App\Models\SheetLink;
use App\Models\Site;
use App\Sheets\SheetPage;
use App\Sheets\Sheets;
use App\Text\When;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Sheets for clients: made, looked at, fetched, and given out by links. */
final class SheetController
{
    private const A_PAGE = 50;

    public function index(Request $request): View
    {
        $asked = $request->validate(['client' => ['nullable', 'integer'], 'site' => ['nullable', 'integer']]);
        $site = isset($asked['site']) ? Site::with('account.client', 'client')->findOrFail((int) $asked['site']) : null;
        $client = $site?->owner() ?? (isset($asked['client']) ? Client::findOrFail((int) $asked['client']) : null);

        return view('sheets', [
            'client' => $client,
            'site' => $site,
            'clients' => Client::orderBy('name')->get(['id', 'name']),
            'sites' => $client === null ? collect() : self::sitesOf($client),
            'sheets' => Sheet::listed()
                ->with(['client', 'site', 'person', 'links'])
                ->when($client !== null, static fn ($query) => $query->where('client_id', $client?->id))
                ->when($site !== null, static fn ($query) => $query->where('site_id', $site?->id))
                ->latest('id')
                ->paginate(self::A_PAGE)
                ->withQueryString(),
            'from' => CarbonImmutable::now(When::zone())->startOfMonth()->subMonth(),
            'until' => CarbonImmutable::now(When::zone())->startOfMonth()->subDay(),
        ]);
    }

    public function make(Request $request, Sheets $sheets): RedirectResponse
    {
        $asked = $request->validate(
            [
                'client' => ['required', 'integer'],
                'site' => ['nullable', 'integer'],
                'from' => ['required', 'date_format:Y-m-d'],
                'until' => ['required', 'date_format:Y-m-d'],
            ],
            [
                'client.*' => 'Choose the client.',
                'from.*' => 'Write the first day.',
                'until.*' => 'Write the last day.',
            ],
        );
        $client = Client::findOrFail((int) $asked['client']);
        $site = isset($asked['site']) ? Site::with('account.client', 'client')->findOrFail((int) $asked['site']) : null;
        $site === null || $site->owner()->is($client) || throw new Problem(
            "$site->domain is none of $client->name. Choose one of its sites, or all of them.",
        );
        $sheet = $sheets->of(
            $client,
            $site,
            CarbonImmutable::parse($asked['from'], When::zone())->startOfDay(),
            CarbonImmutable::parse($asked['until'], When::zone())->endOfDay(),
            When::zone(),
        );

        return redirect("/sheets/$sheet->id")->with('done', 'The sheet is made and signed.');
    }

    public function makeOfDeployment(Deployment $deployment, Sheets $sheets): RedirectResponse
    {
        $sheet = $sheets->ofDeployment($deployment->load('site.account.client', 'person', 'backup'), When::zone());

        return redirect("/sheets/$sheet->id")->with('done', 'The sheet is made and signed.');
    }

    public function show(Sheet $sheet): View
    {
        return view('sheet', [
            'sheet' => $sheet->load(['client', 'site', 'person', 'links']),
            'page' => new SheetPage($sheet->signed()),
        ]);
    }

    /** As the client gets it, to be printed. */
    public function printed(Sheet $sheet): View
    {
        return view('client-sheet', [
            'page' => new SheetPage($sheet->signed()),
            'json' => "/sheets/$sheet->id.json",
        ]);
    }

    public function json(Sheet $sheet): Response
    {
        return self::asJson($sheet);
    }

    public function link(Request $request, Sheet $sheet, Sheets $sheets): View
    {
        $days = (int) $request->validate(['days' => ['required', 'integer']])['days'];
        $token = $sheets->link($sheet, $days);

        return view('sheet-link', [
            'sheet' => $sheet->load('client', 'site'),
            'days' => $days,
            'link' => url('/client-sheet').'#'.$token->reveal(),
        ]);
    }

    public function withdraw(SheetLink $given, Sheets $sheets): RedirectResponse
    {
        $given->load('sheet.client', 'sheet.site');
        $sheets->withdraw($given);

        return redirect("/sheets/$given->sheet_id")->with('done', 'The link opens nothing any more.');
    }

    public static function asJson(Sheet $sheet): Response
    {
        return response($sheet->signed()->toJson(), 200, [
            'Content-Type' => 'application/json; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"{$sheet->fileName()}.json\"",
            'Cache-Control' => 'no-store',
        ]);
    }

    /** @return \Illuminate\Support\Collection<int, Site> */
    private static function sitesOf(Client $client): \Illuminate\Support\Collection
    {
        return Sheets::sitesOf($client)->orderBy('domain')->get();
    }
}
