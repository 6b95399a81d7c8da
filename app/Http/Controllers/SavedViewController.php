<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\AccountTable;
use App\Models\SavedView;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

final class SavedViewController
{
    public function keep(Request $request): RedirectResponse
    {
        $typed = $request->validate(['name' => 'required|string|max:60', 'query' => 'required|string|max:500']);
        parse_str($typed['query'], $query);
        // Through the table's own reading, so that nothing is kept that it does not know.
        $known = http_build_query(AccountTable::fromRequest(new Request($query))->query);
        SavedView::updateOrCreate(
            ['person_id' => $request->user()->id, 'name' => trim($typed['name'])],
            ['query' => $known],
        );

        return redirect("/accounts?$known")->with('done', 'The view is saved under its name.');
    }

    public function remove(SavedView $view): RedirectResponse
    {
        $view->delete();

        return redirect('/accounts')->with('done', "The view $view->name is removed; the accounts in it stay.");
    }
}
