<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Deployments\DeploymentTable;
use App\Deployments\DeploymentView;
use App\Errands\Errands;
use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\FtpUserState;
use App\Models\Package;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\SetAside;
use App\Models\Site;
use App\Packages\FittingPackages;
use App\Packages\InstalledOn;
use App\Packages\SiteMatches;
use App\Packages\SuitingSite;
use App\Packages\Types;
use App\Plans\ChosenPlace;
use App\Plans\DeploymentRequest;
use App\Plans\InspectionView;
use App\Plans\MakePlan;
use App\Plans\NeedsView;
use App\Plans\Plans;
use App\Plans\SiteFacts;
use App\Plans\UploadInspection;
use App\Record\Record;
use App\Runs\CarryOutDeployment;
use App\Runs\ProveLive;
use App\Runs\SentFiles;
use App\Runs\StartPlan;
use App\Storage\RunFiles;
use App\Work\Tasks;
use Cellarium\Core\Deployment\RunRefusal;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\People\Permission;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\PlanFilter;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\Rule;

final class DeploymentController
{
    public function __construct(
        private readonly RunFiles $files,
        private readonly SiteFacts $siteFacts,
        private readonly UploadInspection $inspection,
    ) {
    }

    public function index(Request $request): View
    {
        $table = DeploymentTable::fromRequest($request);

        return view('deployments', [
            'table' => $table,
            'deployments' => $table->rows(),
            'people' => DeploymentTable::people(),
        ]);
    }

    public function choose(Request $request, Types $types): View
    {
        $site = $request->integer('site') > 0
            ? Site::with('account.client', 'account.ftpUsers', 'account.sites', 'destinations')->findOrFail(
                $request->integer('site'),
            )
            : null;
        $package = $request->integer('package') > 0 ? Package::kept()->findOrFail($request->integer('package'))
            : null;
        $users = $site === null
            ? collect()
            : $site->account->ftpUsers
                ->where('state', FtpUserState::Open)
                ->filter(
                    static fn (FtpUser $user): bool => ! $user->read_only
                        && $user->secret !== null
                        && $site->root()->seenFrom($user->path()) !== null,
                );

        return view('deploy', [
            'site' => $site,
            'package' => $package,
            'users' => $users,
            'better' => $site !== null && $package !== null
                ? SiteMatches::forPackage($package, $types->types())->betterThan($site)
                : null,
            'places' => $site === null ? [] : ChosenPlace::forSite($site),
            'fits' => $site === null && $package !== null ? SiteMatches::forPackage(
                $package,
                $types->types(),
            )->best() : [],
            'suiting' => $site === null && $package !== null ? self::suiting($package, $types) : [],
            'fitting' => $site !== null && $package === null ? FittingPackages::forSite($site, $types->types()) : null,
        ]);
    }

    /** @return list<SuitingSite> */
    private static function suiting(Package $package, Types $types): array
    {
        $on = new InstalledOn($types->types());

        return $on->suiting($package, $on->sites($package));
    }

    public function plan(Request $request, Plans $plans): RedirectResponse
    {
        $given = $request->validate([
            'site' => ['required', 'integer', Rule::exists('sites', 'id')->whereNull('removed_at')],
            'package' => ['required', 'integer', Rule::exists('packages', 'id')->whereNull('let_go_at')],
            'user' => ['nullable', 'integer'],
            'place' => ['nullable', 'string', 'max:1000'],
            'reason' => ['nullable', 'string', 'max:500'],
        ]);
        $site = Site::with('account.client', 'account.sites')->findOrFail($given['site']);
        $user = isset($given['user'])
            ? FtpUser::with('account.sites')
                ->where(['account_id' => $site->account_id, 'state' => FtpUserState::Open])
                ->findOrFail($given['user'])
            : null;
        $deployment = $plans->orderDeploy(new DeploymentRequest(
            $site,
            Package::findOrFail($given['package']),
            $user,
            $this->person($request),
            isset($given['place']) ? RemotePath::fromString($given['place']) : null,
            $given['reason'] ?? null,
        ));
        Tasks::order(MakePlan::class, $deployment->id);

        return redirect("/deployments/$deployment->id");
    }

    public function show(Request $request, Deployment $deployment): View
    {
        return view('deployment', $this->facts($deployment, $request));
    }

    /** While it goes on, only what changes; the whole once it has ended. */
    public function live(Request $request, Deployment $deployment): Response
    {
        $facts = $this->facts($deployment, $request);
        $whole = ['HX-Retarget' => '#run', 'HX-Reswap' => 'outerHTML'];

        return match (true) {
            $facts['view'] === null => response()->view('parts.drafting', $facts)->withHeaders($whole),
            $facts['view']->isGoing() => response()->view('parts.live', $facts),
            default => response()->view('parts.deployment', $facts)->withHeaders($whole),
        };
    }

    public function start(Request $request, Deployment $deployment): RedirectResponse
    {
        if (! StartPlan::start($deployment, $this->person($request))) {
            return redirect("/deployments/$deployment->id")->with(
                'trouble',
                $deployment->refresh()->state === DeploymentState::Planned
                    ? 'Not every question is answered. Nothing was started.'
                    : 'This plan was started already.',
            );
        }

        return redirect("/deployments/$deployment->id");
    }

    /** Putting back is tried again, after a person has mended what kept it from working. */
    public function again(Deployment $deployment): RedirectResponse
    {
        if (
            Deployment::where('id', $deployment->id)
                ->where('state', DeploymentState::Unfinished)
                ->update(['held' => false]) === 1
        ) {
            $deployment->load('site.account');
            Record::write(
                RecordKind::RetryStarted,
                "Putting back {$deployment->site->domain} is tried again",
                $deployment->site,
                [
                    'deployment' => $deployment->id,
                ],
            );
            Tasks::order(CarryOutDeployment::class, $deployment->id);
        }

        return redirect("/deployments/$deployment->id");
    }

    /** Visitors are asked for what was read back only, all of the site. */
    public function prove(Deployment $deployment): RedirectResponse
    {
        return Errands::answer(Errands::start(ProveLive::class, "/deployments/$deployment->id", $deployment->site));
    }

    public function undo(Request $request, Deployment $deployment, Plans $plans): RedirectResponse
    {
        $deployment->load(
            'site.account.client',
            'site.account.sites',
            'backup',
            'package',
            'fromBackup',
            'undoes.package',
        );
        $back = $plans->orderUndo($deployment, $this->person($request));
        Tasks::order(MakePlan::class, $back->id);

        return redirect("/deployments/$back->id");
    }

    /** What a deployment set aside, back where it was. */
    public function restore(Request $request, Deployment $deployment, Plans $plans): RedirectResponse
    {
        $deployment->load('site.account.client', 'site.account.sites');
        $back = $plans->orderRestoreFiles($deployment, $this->person($request));
        Tasks::order(MakePlan::class, $back->id);

        return redirect("/deployments/$back->id");
    }

    /** Ends a look or a run; what was begun on the server is put back. */
    public function cancel(Deployment $deployment): RedirectResponse
    {
        $deployment->load('site.account');
        if (
            Deployment::where('id', $deployment->id)
                ->whereNull('cancelled_at')
                ->whereNull('ended_at')
                ->update(['cancelled_at' => now()]) === 1
        ) {
            Record::write(
                RecordKind::DeploymentCancelled,
                "{$deployment->title()} on {$deployment->site->domain} cancelled",
                $deployment->site,
                ['deployment' => $deployment->id],
            );
        }
        Deployment::where('id', $deployment->id)
            ->where('state', DeploymentState::Drafting)
            ->whereNull('started_at')
            ->update(['state' => DeploymentState::Cancelled]);

        return redirect("/deployments/$deployment->id");
    }

    /** Plans that nobody is going to start: they are let go of, and nothing on any server is. */
    public function discard(Request $request): RedirectResponse
    {
        $given = $request->validate(['plans' => ['required', 'array', 'max:200'], 'plans.*' => ['integer']]);
        $gone = 0;
        foreach (Deployment::with([...Deployment::titled(), 'site.account'])->findMany($given['plans']) as $plan) {
            $gone += (int) StartPlan::discard($plan);
        }

        return back()->with(
            $gone === 0 ? 'trouble' : 'done',
            match ($gone) {
                0 => 'None of them is a plan that waits any more. Nothing was discarded.',
                1 => 'The plan is discarded. Nothing on the server was changed.',
                default => "$gone plans are discarded. Nothing on a server was changed.",
            },
        );
    }

    /** The server is looked at once more, and the plan made for what is there now. */
    public function planAgain(Deployment $deployment): RedirectResponse
    {
        if (StartPlan::again($deployment)) {
            Tasks::order(MakePlan::class, $deployment->id);
        }

        return redirect("/deployments/$deployment->id");
    }

    /** Much less is listed than was known, and somebody has looked: it is right. */
    public function accept(Deployment $deployment): RedirectResponse
    {
        $deployment->load('site.account', 'package', 'fromBackup', 'undoes.package');
        $accepted = [
            'state' => DeploymentState::Drafting,
            'question' => null,
            'trouble' => null,
            'collapse_accepted' => true,
            'started_at' => null,
        ];
        if (
            Deployment::where('id', $deployment->id)
                ->where('question', RunRefusal::Collapsed)
                ->update($accepted) === 1
        ) {
            Record::write(
                RecordKind::ListingAccepted,
                "{$deployment->site->domain}: that much less is on the server than before is right",
                $deployment->site,
                ['deployment' => $deployment->id],
            );
            Tasks::order(MakePlan::class, $deployment->id);
        }

        return redirect("/deployments/$deployment->id");
    }

    /** @return array<string, mixed> */
    private function facts(Deployment $deployment, Request $request): array
    {
        $deployment->load(
            'site.account.client',
            'package',
            'backup',
            'fromBackup',
            'undoes.package',
            'ftpUser',
            'person',
            'waitsFor.site',
            'waitsFor.package',
            'comparedWith',
        );
        $aside = SetAside::held()->where('deployment_id', $deployment->id)->orderBy('path')->limit(50)->get();

        return [
            'deployment' => $deployment,
            'site' => $deployment->site,
            'account' => $deployment->site->account,
            'originals' => $deployment->state === DeploymentState::Proven
                ? $this->files->originals($deployment)
                : null,
            'view' => $deployment->hasNoPlan()
                ? null
                : new DeploymentView(
                    $deployment,
                    $this->files->planReader($deployment),
                    $aside,
                    $this->filter($request, $deployment),
                ),
            'sent' => $deployment->state->isGoing() ? SentFiles::forRun($deployment, $this->files) : [],
            'inspection' => InspectionView::forDeployment($deployment, $this->files, $this->inspection),
            'mayOverrule' => Gate::allows(Permission::OverruleInspection->value),
            'needs' => NeedsView::forSite($deployment->site, $this->siteFacts->needs($deployment)),
        ];
    }

    /** Questions come first. */
    private function filter(Request $request, Deployment $deployment): PlanFilter
    {
        $asks = ($deployment->counts[Change::Asked->value]['files'] ?? 0) > 0;

        if ($request->has('show')) {
            return PlanController::filter($request);
        }
        // Of files by hand only a few are touched; the others are the site as it is.
        $touched = $deployment->kind === DeploymentKind::Files ? array_filter(
            [Change::Replace, Change::Add],
            static fn (Change $change): bool => ($deployment->counts[$change->value]['files'] ?? 0) > 0,
        ) : [];

        return match (true) {
            $asks => new PlanFilter(questions: true),
            $touched !== [] => new PlanFilter(reset($touched)),
            default => PlanController::filter($request),
        };
    }

    private function person(Request $request): Person
    {
        $person = $request->user();

        return $person instanceof Person ? $person : throw new Problem('Sign in first.');
    }
}
