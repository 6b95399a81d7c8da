<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\AskPhp;
use App\Accounts\FindRoot;
use App\Accounts\ProveRoot;
use App\Errands\Errands;
use App\Models\Account;
use App\Models\Client;
use App\Models\Deployment;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\Site;
use App\Packages\InstalledOn;
use App\Packages\Types;
use App\Record\Record;
use App\Runs\AskOpen;
use App\Sites\SiteForm;
use App\Sites\SiteView;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Collection;

/** The domains of an account and the directories they are served from. */
final class SiteController
{
    /** @param  Site  $site  removed ones are found too, and say so */
    public function show(Site $site, Types $types): View|RedirectResponse
    {
        if ($site->isRemoved()) {
            return redirect("/removals/sites/$site->id");
        }
        Person::clientOfViewer() === null && $site->account->update(['used_at' => now()]);
        $site->load([
            'client',
            'account.client',
            'account.sites',
            'account.shared.other.sites',
            'account.ftpUsers' => static fn ($query) => $query->alive(),
            'destinations',
            ...Deployment::titled('lastDeployment.'),
            'lastDeployment.person',
            'lastDeployment.backup',
        ]);

        return view('site', [
            'site' => $site,
            'account' => $site->account,
            'view' => new SiteView($site),
            'installed' => (new InstalledOn($types->types()))->rows($site),
        ]);
    }

    public function new(Account $account): View
    {
        return view('site-settings', [
            'clients' => $this->others($account),
            'account' => $account->load('client'),
            'site' => new Site(['start_pages' => StartPages::USUAL, 'document_root' => '/', 'kept' => []]),
        ]);
    }

    public function create(Request $request, Account $account, SiteForm $form): RedirectResponse
    {
        $site = $account->sites()->create($form->values($request, null) + ['kept' => ['uploads/']]);
        Record::write(
            RecordKind::SiteAdded,
            "$site->domain added to $account->host",
            $site->setRelation('account', $account),
        );

        return redirect("/sites/$site->id/edit")->with(
            'done',
            "$site->domain is known now. Find and prove where it is served from.",
        );
    }

    public function edit(Site $site): View
    {
        return view('site-settings', [
            'clients' => $this->others($site->account),
            'account' => $site->account->load('client'),
            'site' => $site->load('destinations'),
        ]);
    }

    /** @return Collection<int, Client> whose site it may be instead */
    private function others(Account $account): Collection
    {
        return Client::where('id', '!=', $account->client_id)->orderBy('name')->get(['id', 'name']);
    }

    public function update(Request $request, Site $site, SiteForm $form): RedirectResponse
    {
        $root = $site->document_root;
        $site->update($form->values($request, $site));
        if ($site->document_root !== $root) {
            $site->update(['root_proven_at' => null, 'php' => null]);
        }
        Record::write(RecordKind::SiteChanged, "$site->domain changed", $site);

        return redirect("/sites/$site->id")->with('done', "The settings of $site->domain are saved.");
    }

    public function find(Site $site): RedirectResponse
    {
        return Errands::answer(Errands::start(FindRoot::class, "/sites/$site->id/edit#candidates", $site));
    }

    public function askPhp(Site $site): RedirectResponse
    {
        return Errands::answer(Errands::start(AskPhp::class, "/sites/$site->id", $site));
    }

    /** Whether what should not answer everybody still does. */
    public function askOpen(Site $site): RedirectResponse
    {
        return Errands::answer(Errands::start(AskOpen::class, "/sites/$site->id", $site));
    }

    public function proveRoot(Request $request, Site $site): RedirectResponse
    {
        $directory = $request->has('directory')
            ? RemotePath::fromString($request->string('directory')->toString())
            : null;
        $back = $directory === null ? "/sites/$site->id" : "/sites/$site->id/edit";

        return Errands::answer(
            Errands::start(ProveRoot::class, $back, $site, ['directory' => $directory?->toString()]),
        );
    }
}
