<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\SheetLink;
use App\Sheets\SheetPage;
use App\Sheets\Sheets;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/**
 * The page behind a link to a sheet; whoever has it need not be signed in here. The token stands behind the "#" of the
 * link, which browsers send to nobody, so that no log on the way has it; the session then remembers which sheet it
 * opens.
 */
final class SheetLinkController
{
    private const OPENED = 'sheet_links';

    public function show(): Response
    {
        return LinkPage::show('client-sheet-link', ['isGone' => false], 200);
    }

    public function open(Request $request, Sheets $sheets): Response|RedirectResponse
    {
        $token = $request->validate(
            ['code' => ['required', 'string', 'max:200']],
            ['code.*' => 'The link is not whole: its end, behind the "#", is missing.'],
        )['code'];
        $link = $sheets->open(trim($token), $request);
        if ($link === null) {
            return LinkPage::show('client-sheet-link', ['isGone' => true], 404);
        }
        $request->session()->push(self::OPENED, $link->id);

        return redirect("/client-sheet/$link->id");
    }

    public function sheet(Request $request, string $given, Sheets $sheets): Response
    {
        $link = self::opened($request, $given);

        return $link === null
            ? LinkPage::show('client-sheet-link', ['isGone' => true], 404)
            : LinkPage::show('client-sheet', [
                'page' => new SheetPage($sheets->behind($link)->signed()),
                'json' => "/client-sheet/$given.json",
            ], 200);
    }

    public function json(Request $request, string $given, Sheets $sheets): Response
    {
        $link = self::opened($request, $given);

        return $link === null
            ? LinkPage::show('client-sheet-link', ['isGone' => true], 404)
            : SheetController::asJson($sheets->behind($link));
    }

    /** Asked anew each time, so that one that was withdrawn opens nothing more. */
    private static function opened(Request $request, string $id): ?SheetLink
    {
        $link = in_array($id, array_map(strval(...), (array) $request->session()->get(self::OPENED)), true)
            ? SheetLink::find((int) $id)
            : null;

        return $link?->works() === true ? $link : null;
    }
}
