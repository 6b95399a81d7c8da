<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Models\Errand;
use App\Models\ErrandState;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** The page that waits for what a server was asked for. */
final class ErrandController
{
    public function show(Request $request, Errand $errand): Response|RedirectResponse
    {
        abort_if($errand->person_id !== $request->user()?->id, 404);
        $asks = $request->header('HX-Request') === 'true';
        if ($errand->isDownloadable() && ($errand->state === ErrandState::Done || ! $request->boolean('whole'))) {
            return response()->view($asks ? 'parts.download' : 'download', ['errand' => $errand]);
        }
        if (! $errand->state->hasEnded()) {
            return response()->view($asks ? 'parts.errand' : 'errand', ['errand' => $errand]);
        }

        // A fragment cannot lead elsewhere by itself; the page asks again and is led on, with what came of it.
        return $asks ? response('')->header('HX-Redirect', "/errands/$errand->id") : Errands::answer($errand);
    }

    public function cancel(Request $request, Errand $errand): RedirectResponse
    {
        abort_if($errand->person_id !== $request->user()?->id, 404);
        Errands::cancel($errand);

        return Errands::answer($errand);
    }
}
