<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Files\ChangeFiles;
use App\Files\ChangesByHand;
use App\Models\Deployment;
use App\Models\Person;
use App\Models\SetAside;
use App\Models\Site;
use App\Plans\MakePlan;
use App\Plans\Plans;
use App\Work\Tasks;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** Files that deployments took out of a site and that are held: listed, and restored file by file. */
final class SetAsideController
{
    private const EACH = 100;

    public function index(Site $site): View
    {
        $site->load('account.client');

        return view('set-aside', [
            'site' => $site,
            'files' => $site->setAside()
                ->held()
                ->with([...Deployment::titled('deployment.'), 'change'])
                ->latest('id')
                ->paginate(self::EACH),
        ]);
    }

    public function restore(Request $request, SetAside $aside, Plans $plans): RedirectResponse
    {
        $aside->load('site.account.client', 'site.account.sites', 'deployment', 'change');
        $person = $request->user();
        if ($aside->change_id !== null) {
            return $this->restoreByHand($aside, $person instanceof Person ? $person : null);
        }
        $back = $plans->orderRestoreFile($aside, $person instanceof Person ? $person : null);
        Tasks::order(MakePlan::class, $back->id);

        return redirect("/deployments/$back->id");
    }

    /** What a change by hand took out is put back by one. */
    private function restoreByHand(SetAside $aside, ?Person $person): RedirectResponse
    {
        $change = app(ChangesByHand::class)->orderRestore($aside, $person);
        Errands::start(ChangeFiles::class, "/file-changes/$change->id", $change->account, ['change' => $change->id]);

        return redirect("/file-changes/$change->id");
    }
}
