<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Errands\ErrandTask;
use App\Files\Download;
use App\Models\Errand;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** The page that waits for what a server was asked for. */
final class ErrandController
{
    public function show(Request $request, Errand $errand): Response|RedirectResponse
    {
        $asks = $request->header('HX-Request') === 'true';
        $task = ErrandTask::find($errand);
        $hasEnded = $errand->state->hasEnded();
        if (
            $task === Download::class && Download::isSendable($errand)
            && ($hasEnded || ! $request->boolean('whole'))
        ) {
            return response()->view($asks ? 'parts.download' : 'download', ['errand' => $errand]);
        }
        if (! $hasEnded) {
            return response()->view($asks ? 'parts.errand' : 'errand', ['errand' => $errand, 'task' => $task]);
        }

        // A fragment cannot lead elsewhere by itself; the page asks again and is led on, with what came of it.
        return $asks ? response('')->header('HX-Redirect', "/errands/$errand->id") : Errands::answer($errand);
    }

    public function cancel(Errand $errand): RedirectResponse
    {
        Errands::cancel($errand);

        return Errands::answer($errand);
    }
}
