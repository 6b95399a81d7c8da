<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Person;
use App\Models\RecordEntry;
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
        $entries = RecordEntry::with(
            'person',
            'client',
            'site',
            'account',
        )
            ->when(
                $words !== '',
                static fn ($query) => $query->where(
                    static fn ($query) => $query
                        ->where('sentence', 'like', $like)
                        ->orWhereHas('client', static fn ($query) => $query->where('name', 'like', $like)),
                ),
            )
            ->when($before > 0, static fn ($query) => $query->where('id', '<', $before))
            ->orderByDesc('id')->limit(self::PAGE + 1)->get();

        return view('record', [
            'ofOneClient' => Person::clientOfViewer() !== null,
            'entries' => $entries->take(self::PAGE),
            'more' => $entries->count() > self::PAGE,
            'words' => $words,
        ]);
    }
}
