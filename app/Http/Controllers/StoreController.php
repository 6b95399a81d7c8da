<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Person;
use App\Watch\ClearStore;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** Actions on the store as a whole. */
final class StoreController
{
    public function sweep(Request $request): RedirectResponse
    {
        return $this->order($request, false, 'What nothing refers to is being moved aside, for a week.');
    }

    public function emptyAside(Request $request): RedirectResponse
    {
        return $this->order($request, true, 'What lies aside is being deleted.');
    }

    private function order(Request $request, bool $empties, string $words): RedirectResponse
    {
        $person = $request->user();
        $person instanceof Person || abort(403);
        ClearStore::dispatch($person->id, $empties);

        return redirect('/backups/sites')->with('done', "$words The record says what became of it.");
    }
}
