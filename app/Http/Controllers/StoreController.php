<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Person;
use App\Watch\ClearStore;
use App\Watch\EmptyStoreAside;
use App\Work\Task;
use App\Work\Tasks;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** Actions on the store as a whole. */
final class StoreController
{
    public function sweep(Request $request): RedirectResponse
    {
        return $this->order($request, ClearStore::class, 'What nothing refers to is being moved aside, for a week.');
    }

    public function emptyAside(Request $request): RedirectResponse
    {
        return $this->order($request, EmptyStoreAside::class, 'What lies aside is being deleted.');
    }

    /** @param  class-string<Task>  $task */
    private function order(Request $request, string $task, string $words): RedirectResponse
    {
        $person = $request->user();
        $person instanceof Person || abort(403);
        Tasks::order($task, $person->id);

        return redirect('/backups/sites')->with('done', "$words The record says what became of it.");
    }
}
