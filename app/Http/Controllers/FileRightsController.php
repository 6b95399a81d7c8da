<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Errands\ErrandTask;
use App\Failure\Problem;
use App\Files\ChangeFiles;
use App\Files\ChangesByHand;
use App\Files\CheckRights;
use App\Files\FilePlace;
use App\Files\SiteRights;
use App\Models\Errand;
use App\Models\Person;
use App\Models\Site;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\WrongRights;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** The rights of a whole site, and mending those that are wrong. */
final class FileRightsController
{
    public function check(Site $site): RedirectResponse
    {
        $errand = Errands::order(CheckRights::class, '/', $site, ['at' => $site->root()->toString()]);
        $errand->update(['back' => "/rights-checks/$errand->id"]);

        return redirect("/rights-checks/$errand->id");
    }

    public function show(Request $request, Errand $check): View
    {
        $site = $this->siteOf($check);

        return view($request->header('HX-Request') === 'true' ? 'parts.rights-check' : 'rights-check', [
            'errand' => $check,
            'site' => $site,
            'place' => $this->placeOf($site),
            'wrong' => SiteRights::wrong($check),
        ]);
    }

    public function mend(Request $request, Errand $check, ChangesByHand $changes): RedirectResponse
    {
        $site = $this->siteOf($check);
        $given = $request->validate([
            'names' => ['required', 'array', 'max:'.ChangesByHand::MOST_STEPS],
            'names.*' => ['string', 'max:5000'],
        ]);
        $chosen = array_flip($given['names']);
        $steps = array_map(
            static fn (WrongRights $one): FileChange => SiteRights::step($site, $one),
            array_values(array_filter(
                SiteRights::wrong($check),
                static fn (WrongRights $one): bool => isset($chosen[$one->entry->path->toString()]),
            )),
        );
        $person = $request->user();
        $change = $changes->orderRights(
            $this->placeOf($site),
            $steps === [] ? throw new Problem('Nothing was chosen. Tick one or more files first.') : $steps,
            $person instanceof Person ? $person : null,
        );
        Errands::start(ChangeFiles::class, "/file-changes/$change->id", $site->account, ['change' => $change->id]);

        return redirect("/file-changes/$change->id");
    }

    private function siteOf(Errand $errand): Site
    {
        abort_unless(ErrandTask::find($errand) === CheckRights::class, 404);
        $errand->load('site.client', 'site.account.client', 'site.account.sites');

        return $errand->site ?? abort(404);
    }

    private function placeOf(Site $site): FilePlace
    {
        return FilePlace::ofSite($site, '')->at($site->root())
            ?? throw new \LogicException('The document root of a site is among its files.');
    }
}
