<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Failure\Problem;
use App\FtpUsers\BulkChanges;
use App\FtpUsers\FtpUserTable;
use App\Models\BulkChange;
use App\Models\BulkKind;
use App\Models\FtpUser;
use App\Text\When;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** All FTP users over all accounts, and changes to many of them at once. */
final class FtpUserListController
{
    public function index(Request $request): View
    {
        $table = FtpUserTable::fromRequest($request);

        return view('ftp-users', ['table' => $table, 'users' => $table->page()]);
    }

    public function draft(Request $request, BulkChanges $bulk): RedirectResponse
    {
        $kind = $request->enum('kind', BulkKind::class) ?? throw new Problem('Choose what is to be done.');
        $closes = $kind === BulkKind::Move
            ? When::typed($request->string('closes')->toString())
            : null;
        $ids = array_values(
            array_unique(array_map(intval(...), array_filter((array) $request->input('users', []), is_numeric(...)))),
        );

        return redirect('/bulk/'.$bulk->draft($kind, $ids, $closes, $request->user())->id);
    }

    public function show(BulkChange $change, BulkChanges $bulk): View
    {
        return view('bulk', $this->facts($change, $bulk));
    }

    public function live(BulkChange $change, BulkChanges $bulk): View
    {
        return view('parts.bulk', $this->facts($change, $bulk));
    }

    public function start(BulkChange $change, BulkChanges $bulk): RedirectResponse
    {
        $started = $bulk->start($change);

        return redirect("/bulk/$change->id")->with($started ? [] : ['trouble' => 'This was started already.']);
    }

    /** @return array<string, mixed> */
    private function facts(BulkChange $change, BulkChanges $bulk): array
    {
        $handOver = $change->kind === BulkKind::Renew
            ? FtpUser::whereIn('id', array_column($change->items, 'user'))
                ->whereNull('handed_over_at')
                ->pluck('id')
                ->flip()
            : collect();

        return ['change' => $change, 'title' => $bulk->title($change), 'handOver' => $handOver];
    }
}
