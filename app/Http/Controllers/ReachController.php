<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\FtpUsers\NewFtpUserForm;
use App\Models\Account;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Reach\FleetScopes;
use App\Reach\LookAtTree;
use App\Reach\ReachLines;
use App\Reach\ReachMap;
use App\Reach\ReachMatrix;
use Cellarium\Core\Intake\CsvCell;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** The reach of logins: before it exists, in one account, over all. */
final class ReachController
{
    /** What an FTP user in a directory would reach, while the directory is typed or chosen. */
    public function foresight(Request $request, Account $account): View
    {
        $account->load('client', 'sites.destinations', 'sites.client');
        $form = NewFtpUserForm::typed($account, $request->query());
        $directory = $form->directory();
        LookAtTree::again($account, $directory);
        $foresight = $directory === null ? null : $form->foresight($directory);

        return view('parts.foresight', [
            'form' => $form,
            'account' => $account,
            'foresight' => $foresight,
            'warning' => $foresight === null ? null : $form->spaceWarning($foresight),
        ]);
    }

    /** One level of the directory tree; looked at on the server where nobody has looked, or when asked to. */
    public function tree(Request $request, Account $account): View
    {
        $account->load('sites');
        $at = RemotePath::fromString($request->string('at')->toString() ?: '/');
        $going = $request->integer('errand') > 0
            ? Errand::where(['id' => $request->integer('errand'), 'account_id' => $account->id])->first()
            : null;
        if ($going === null && ($request->boolean('look') || ! $account->seen()->at($at)->looked)) {
            $going = Errands::start(
                LookAtTree::class,
                "/accounts/$account->id",
                $account,
                [
                    'at' => $at->toString(),
                ],
            );
        }
        if ($going !== null && ! $going->state->hasEnded()) {
            return view('parts.tree-waits', ['account' => $account, 'at' => $at, 'errand' => $going]);
        }
        if ($going !== null && $going->state !== ErrandState::Done) {
            return view('parts.trouble', ['trouble' => $going->words]);
        }

        return view('parts.tree-level', [
            'account' => $account,
            'tree' => $account->refresh()->seen(),
            'at' => $at,
            'roots' => $account->sites->pluck('domain', 'document_root'),
        ]);
    }

    public function map(Request $request, Account $account): View
    {
        $account->load([
            'client',
            'sites.client',
            'ftpUsers' => static fn ($query) => $query->orderBy('created_at')->orderBy('id'),
        ]);
        $account->ftpUsers->each(static fn ($user) => $user->setRelation('account', $account));

        return view('parts.reach-map', [
            'account' => $account,
            'map' => ReachMap::forAccount($account, $request->query('open', []), $request->boolean('closed')),
        ]);
    }

    public function csv(Account $account): StreamedResponse
    {
        $account->load(['client', 'sites.client', 'ftpUsers' => static fn ($query) => $query->orderBy('login')]);

        return self::table("reach-$account->host.csv", ReachLines::COLUMNS, ReachLines::forAccount($account));
    }

    public function matrix(Request $request): View
    {
        return view('reach', [
            'matrix' => ReachMatrix::fromRequest(
                $request,
                FleetScopes::scopes(idleAfter: ReachMatrix::idleAfter($request)),
            ),
        ]);
    }

    public function matrixCsv(Request $request): StreamedResponse
    {
        return self::table(
            'reach.csv',
            ReachMatrix::COLUMNS,
            ReachMatrix::fromRequest(
                $request,
                FleetScopes::scopes(idleAfter: ReachMatrix::idleAfter($request)),
            )->lines(),
        );
    }

    /**
     * @param  list<string>  $columns
     * @param  iterable<list<string>>  $lines
     */
    private static function table(string $name, array $columns, iterable $lines): StreamedResponse
    {
        return response()->streamDownload(static function () use ($columns, $lines): void {
            $sink = fopen('php://output', 'wb');
            assert($sink !== false);
            ob_start(null, 1 << 16); // Thousands of short lines go on together.
            CsvCell::line($sink, $columns);
            foreach ($lines as $line) {
                CsvCell::line($sink, $line);
            }
            ob_end_flush();
        }, $name, ['Content-Type' => 'text/csv; charset=utf-8']);
    }
}
