<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\FtpUsers\HandOvers;
use App\Models\HandOver;
use App\Models\Person;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;

/** The page behind a link that shows settings once; whoever has the link is not signed in here. */
final class HandOverController
{
    /**
     * Looking at the page opens nothing: programs follow links in mails before people do. The token stands behind the
     * "#" of the link, which browsers send to nobody, so that no log on the way has it.
     */
    public function show(): Response
    {
        return LinkPage::show('settings-link', ['settings' => null, 'gone' => false], 200);
    }

    public function open(Request $request, HandOvers $handOvers): Response
    {
        $given = $request->validate(
            [
                'by' => ['required', 'string', 'max:100', 'regex:/\A[^\x00-\x1f\x7f]*\S[^\x00-\x1f\x7f]*\z/u'],
                'code' => ['required', 'string', 'max:200'],
            ],
            ['by.*' => 'Write your name.', 'code.*' => 'The link is not whole: its end, behind the "#", is missing.'],
        );
        // The link lets in, not the sign-in: somebody of a client may hold one to what is another's.
        Person::clientOfViewer() === null || Auth::forgetUser();
        $settings = $handOvers->open(trim($given['code']), trim($given['by']), $request);

        return LinkPage::show(
            'settings-link',
            ['settings' => $settings, 'gone' => $settings === null],
            $settings === null ? 404 : 200,
        );
    }

    public function withdraw(HandOver $link, HandOvers $handOvers): RedirectResponse
    {
        $handOvers->withdraw($link);

        return redirect("/ftp-users/$link->ftp_user_id")->with(
            'done',
            'The link opens nothing any more. Renew the password to hand the settings over anew.',
        );
    }
}
