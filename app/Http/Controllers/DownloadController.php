<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Errands\ErrandTask;
use App\Files\Download;
use App\Files\DownloadAnswer;
use App\Hosting\HostShare;
use App\Models\Errand;
use App\Models\ErrandState;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Bytes of what was ordered to be downloaded. */
final class DownloadController
{
    public function show(Request $request, Errand $errand, DownloadAnswer $answer): Response
    {
        abort_unless(ErrandTask::find($errand) === Download::class, 404);
        if (! Download::isSendable($errand)) {
            return Errands::answer($errand);
        }
        $room = $errand->state === ErrandState::Done ? [] : HostShare::ofTransfers()->take($errand->host() ?? '');

        return $room === null ? redirect("/errands/$errand->id?whole=1") : $answer->of(
            $errand,
            $room,
            (string) $request->header('Range', ''),
            (string) $request->header('If-Range', ''),
        );
    }
}
