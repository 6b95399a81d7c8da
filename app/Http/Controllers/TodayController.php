<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Client;
use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordKind;
use App\Models\Site;
use App\Today\ClientToday;
use App\Today\ConcernKind;
use App\Today\Concerns;
use App\Today\ShelfPage;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;

final class TodayController
{
    public function show(Request $request): View
    {
        if (Person::viewer()?->role->isOfTheAgency() === false) {
            return view('today-client', ['today' => ClientToday::forPerson(Person::viewer())]);
        }
        $concerns = Concerns::compute();
        $kind = $request->enum('kind', ConcernKind::class);

        return view('today', [
            'groups' => $concerns->groups($kind),
            'only' => $kind,
            'rack' => $this->rack($request),
            'as' => $request->string('as')->toString() === 'table' ? 'table' : 'drawing',
            'clientGroups' => Client::where('group', '!=', '')->distinct()->orderBy('group')->pluck('group'),
            'sites' => Site::count(),
            'troubled' => count($concerns->all),
            'changed' => RecordEntry::with('client')
                ->where('action', RecordKind::FoundChanged)
                ->where('at', '>', now()->subDay())
                ->latest('id')
                ->limit(5)
                ->get(),
        ]);
    }

    public function shelves(Request $request): View
    {
        return view($request->string('as')->toString() === 'table' ? 'parts.shelf-rows' : 'parts.shelves', [
            'rack' => $this->rack($request),
        ]);
    }

    private function rack(Request $request): ShelfPage
    {
        return ShelfPage::part(
            max(0, $request->integer('from')),
            mb_substr($request->string('group')->toString(), 0, 100),
            mb_substr(trim($request->string('words')->toString()), 0, 100),
        );
    }
}
