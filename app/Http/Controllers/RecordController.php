<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Person;
use App\Models\RecordEntry;
use App\Models\RecordGroup;
use App\Models\RecordKind;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;

final class RecordController
{
    private const PAGE = 100;

    public function __invoke(Request $request): View
    {
        $words = trim(mb_substr((string) $request->query('q', ''), 0, 100));
        $like = '%'.addcslashes($words, '%_\\').'%';
        $before = $request->integer('before');
        $group = RecordGroup::tryFrom((string) $request->query('about', ''));
        $who = $request->integer('who');
        $entries = RecordEntry::with('person', 'client', 'site', 'account')
            ->when(
                $words !== '',
                static fn ($query) => $query->where(
                    static fn ($query) => $query
                        ->where('sentence', 'like', $like)
                        ->orWhereHas('client', static fn ($query) => $query->where('name', 'like', $like)),
                ),
            )
            // Of connections only those that do not hold are news, unless these are what is looked for.
            ->when(
                $group === null && $words === '',
                static fn ($query) => $query->whereNot(
                    static fn ($query) => $query
                        ->where('action', RecordKind::AccountConnected)
                        ->where('sentence', 'like', 'Connected to %'),
                ),
            )
            ->when($group !== null, static fn ($query) => $query->whereIn('action', $group?->kinds() ?? []))
            ->when($who > 0, static fn ($query) => $query->where('person_id', $who))
            ->when($before > 0, static fn ($query) => $query->where('id', '<', $before))
            ->orderByDesc('id')->limit(self::PAGE + 1)->get();

        return view('record', [
            'ofOneClient' => Person::clientOfViewer() !== null,
            'entries' => $entries->take(self::PAGE),
            'more' => $entries->count() > self::PAGE,
            'words' => $words,
            'about' => $group,
            'isFiltered' => $group !== null || $who > 0 || $words !== '',
            'who' => $who,
            'people' => Person::clientOfViewer() === null ? Person::orderBy('name')->get(['id', 'name']) : collect(),
        ]);
    }
}
