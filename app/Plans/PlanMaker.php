<?php

declare(strict_types=1);

namespace App\Plans;

use App\Accounts\AccountCheck;
use App\Backups\DatabaseDumps;
use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\Package;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\SamePlace;
use App\Models\SetAside;
use App\Models\Site;
use App\Packages\Types;
use App\Record\Record;
use App\Storage\RunFiles;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\ListingDoubted;
use Cellarium\Core\Backup\TrustedListing;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\RemoteReader;
use Cellarium\Core\Connection\RemoteText;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Deployment\RunRefusal;
use Cellarium\Core\DocumentRoot\PlaceholderPage;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Type\InstalledPackage;
use Cellarium\Core\Package\Type\InstalledPackages;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\LeftByUs;
use Cellarium\Core\Plan\LiveChanges;
use Cellarium\Core\Plan\PastRun;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanImpossible;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Undo;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\SurveyStopped;
use Cellarium\Core\Transfer\TransferFailed;

/** Makes plans: looks at the server and compares. Nothing is changed there. */
final readonly class PlanMaker
{
    private const OF_PAST_RUNS = [
        'id',
        'site_id',
        'kind',
        'root',
        'directory',
        'paths',
        'backup_id',
        'undoes_id',
        'from_backup_id',
    ];

    public function __construct(
        private Connections $connections,
        private RunFiles $files,
        private BackupShelf $shelf,
        private Types $types,
        private SiteSurvey $survey,
        private PackageChecks $checks,
        private Ways $ways,
        private UploadInspection $inspection,
        private AccountCheck $check,
        private DatabaseDumps $dumps,
    ) {
    }

    /**
     * Looks at the server and writes the plan down, or why there is none.
     *
     * @throws Problem|RemoteFailure|TransferFailed|PlanImpossible|ListingDoubted|SurveyStopped|Cancelled
     */
    public function make(Deployment $deployment): Deployment
    {
        $deployment->compared_with_id = $this->before($deployment)?->id;
        try {
            [$policy, $survey, $plan] = match ($deployment->kind) {
                DeploymentKind::Deploy => $this->compare($deployment),
                DeploymentKind::RestoreBackup => $this->compareBackup($deployment),
                DeploymentKind::RestoreFiles => $this->compareSetAside($deployment),
                DeploymentKind::Files => $this->compareFiles($deployment),
                default => $this->compareUndo($deployment),
            };
        } catch (\Throwable $failure) {
            $deployment->update([
                'state' => $failure instanceof Cancelled ? DeploymentState::Cancelled : DeploymentState::NotPlanned,
                'question' => self::question($failure),
                'trouble' => Problem::isExpected($failure)
                    ? Problem::words($failure)
                    : 'An error inside Cellarium; its log says which.',
                'progress' => null,
            ]);
            throw $failure;
        }
        // What it weighs is the room there is now.
        $this->check->space($deployment->site->account);
        $this->files->keepDraft($deployment, $plan);
        $this->ways->weigh($deployment, $plan);
        $deployment->update([
            'state' => DeploymentState::Planned,
            'seen' => $survey->manifest->digest(),
            'policy' => $policy->toArray(),
            'counts' => $plan->counts(),
            'planned_at' => now(),
            'databases_ahead' => $deployment->kind->isByHand()
                ? null
                : $this->dumps->ahead($deployment->site, $deployment->runPlace()->root),
            'started_at' => null,
            'progress' => null,
            'trouble' => null,
        ]);
        Record::write(
            RecordKind::PlanMade,
            "Plan made for {$deployment->site->domain}: {$deployment->title()}"
                .$this->inspection->leftOutInWords($deployment),
            $deployment->site,
            ['deployment' => $deployment->id],
            $deployment->person,
        );

        return $deployment;
    }

    /**
     * A plan without keeping it.
     *
     * @param  Deployment  $deployment  of a package; where it is kept, it is written down there how the look goes on
     * @return array{Policy, TrustedListing, Plan}
     */
    public function compare(Deployment $deployment): array
    {
        $site = $deployment->site;
        $package = $deployment->package ?? throw new Problem(
            'The package of this deployment is no longer here. Upload it again and make a new plan.',
        );
        $this->checks->check($site, $package);
        $where = $deployment->runPlace();
        $remote = $this->connections->remote($site->account);
        $survey = $this->look($deployment);
        $before = $this->before($deployment);
        $draft = PackageDraft::forDeployment(
            $this->types->types(),
            $deployment,
            new SiteSides(
                $survey->manifest,
                $this->installed($deployment, $survey->manifest, $remote),
                $before === null ? null : $this->files->left($before),
            ),
            fn (?RemotePath $place): array => $this->ours($deployment, $place),
            fn (Manifest $target): array => $this->placeholders($site, $where, $survey->manifest, $target, $remote),
        );
        $deployment->directory = $draft->place?->toString();
        $deployment->exists && $deployment->save();

        return [$draft->policy, $survey, $draft->plan];
    }

    /** What is on the server; where a plan was shown before, also what is different from it. */
    private function look(Deployment $deployment): TrustedListing
    {
        $survey = $this->survey->of($deployment);
        $shown = $deployment->planned_at === null ? null : $this->files->draft($deployment);
        if ($shown === null) {
            return $survey;
        }
        $changes = LiveChanges::since($shown, $survey->manifest);
        $answers = $deployment->answers();
        foreach ($changes->paths() as $path) {
            // What was said of it was said of something else.
            $answers = $answers->to(RelativePath::fromString($path)) === null ? $answers : $answers->without($path);
        }
        $deployment->update([
            'answers' => $answers->isNone() ? null : $answers->toArray(),
            'changes_since' => ServerChangesView::toStore($changes, $deployment->changes_since),
        ]);

        return $survey;
    }

    /** The deployment that left what is compared with; null where nothing was deployed there, or not from there. */
    private function before(Deployment $deployment): ?Deployment
    {
        $place = SamePlace::ofSite($deployment->site, $deployment->runPlace()->root);
        $last = Deployment::with('site')
            ->whereIn('site_id', $place->sites)
            ->where('state', DeploymentState::Proven)
            ->latest('ended_at')
            ->latest('id')
            ->first();

        return $last !== null
            && $place->isAt($last->site->account_id, $last->runPlace()->root)
            && $this->files->hasLeft($last)
                ? $last
                : null;
    }

    /** What is installed where visitors come in; of the site itself it is written down. */
    private function installed(Deployment $deployment, Manifest $live, RemoteReader $remote): InstalledPackages
    {
        $where = $deployment->runPlace();
        $installed = InstalledPackages::find(
            $where->public === null ? $live : $live->inside($where->public->toString()),
            $this->types->types(),
            static fn (string $path): string => (string) RemoteText::read(
                $remote,
                $where->served->join(RelativePath::fromString($path)),
                SiteFacts::READ,
            ),
        );
        $where->served->equals($deployment->site->root()) && $deployment->site->update(['installed' => array_map(
            static fn (InstalledPackage $one): array => $one->toArray(),
            $installed->all,
        )]);

        return $installed;
    }

    /** @return array{Policy, TrustedListing, Plan} */
    private function compareBackup(Deployment $deployment): array
    {
        $target = $this->shelf->manifest((string) $deployment->fromBackup?->name);
        $survey = $this->look($deployment);
        $policy = new Policy(exact: true);
        // What was never here is inspected: what is right at one site may be a secret at another.
        $inspected = fn (Manifest $files): Manifest => $deployment->fromBackup?->site_id === $deployment->site_id
            ? $files
            : $this->inspection->of($deployment, $files, $survey->manifest)->files;
        if ($deployment->paths === null) {
            $target = $inspected($target);
        } else {
            $chosen = $target->chosen($deployment->paths);
            $chosen->files() === [] && throw new Problem(
                'Nothing of what was chosen is in that backup. Look at it and choose again.',
            );
            // Where nothing was chosen, what is there stays as it is.
            $target = $survey->manifest->outside($deployment->paths)->with($inspected($chosen)->all());
        }

        return [$policy, $survey, Planner::plan($target, $survey->manifest, $policy)];
    }

    /** @return array{Policy, TrustedListing, Plan} */
    private function compareUndo(Deployment $deployment): array
    {
        $done = $deployment->undoes ?? throw new Problem(
            'The deployment to undo is no longer known. Restore the backup taken before it.',
        );
        $after = $this->files->after($done) ?? throw new Problem('What that deployment left is no longer known. '
            .'Restore the backup taken before it.');
        $survey = $this->look($deployment);
        $undo = Undo::fromPlan(
            $this->files->plan($done),
            $this->shelf->manifest((string) $done->backup?->name),
            $after,
            $survey->manifest,
        );
        // What somebody changed since is theirs: each of it is a question.
        $policy = new Policy(exact: true, asks: $undo->changedSince);

        return [$policy, $survey, Planner::plan(
            $undo->target,
            $survey->manifest,
            $policy,
            $this->files->thirdSide($deployment),
            $deployment->answers(),
        )];
    }

    /** @return array{Policy, TrustedListing, Plan} */
    private function compareSetAside(Deployment $deployment): array
    {
        $survey = $this->look($deployment);
        $entries = [];
        $asked = SetAside::held()->where('deployment_id', $deployment->undoes_id);
        $deployment->set_aside_id === null || $asked->where('id', $deployment->set_aside_id);
        foreach ($asked->get() as $held) {
            $path = RelativePath::fromString($held->path);
            if ($survey->manifest->get($path) !== null) {
                continue; // Something lies there again; it is not overwritten.
            }
            $entries[] = new ManifestEntry(
                $path,
                EntryKind::File,
                (int) $held->bytes,
                null,
                $held->mode,
                $held->sha256,
            );
            foreach ($path->ancestors() as $above) {
                $entries[] = new ManifestEntry($above, EntryKind::Directory);
            }
        }
        if ($entries === []) {
            throw new Problem('Something lies again where each of these files was. Move or rename it, then try again.');
        }
        $target = Manifest::fromEntries($entries);
        $policy = self::byHand($deployment, false);

        return [$policy, $survey, Planner::plan($target, $survey->manifest, $policy)];
    }

    /**
     * Only what was brought; what was downloaded to be worked on is compared with what it was then.
     *
     * @return array{Policy, TrustedListing, Plan}
     */
    private function compareFiles(Deployment $deployment): array
    {
        [$brought, $base] = $this->files->brought($deployment);
        $survey = $this->look($deployment);
        $before = $this->before($deployment);
        $policy = self::byHand($deployment, true);
        $left = $base ?? ($before === null ? null : $this->files->left($before));

        $known = $before === null ? $survey->manifest : $survey->manifest->withKnownHashes(
            $this->files->left($before) ?? Manifest::fromEntries([]),
            (int) $before->ended_at?->getTimestamp(),
        );

        $base === null && $this->inspection->askForFolder($deployment, $brought, $survey->manifest);

        return [$policy, $survey, Planner::plan(
            $this->inspection->of($deployment, $brought, $known)->files,
            $survey->manifest,
            $policy,
            $left,
            $deployment->answers(),
        )];
    }

    /** @param  bool  $isChosen  whether a person chose each file */
    private static function byHand(Deployment $deployment, bool $isChosen): Policy
    {
        return new Policy(
            served: (string) $deployment->runPlace()->public,
            byHand: $isChosen,
            startPages: $deployment->site->start_pages,
        );
    }

    /** What a person can answer, so that the plan is made after all; null where it cannot. */
    private static function question(\Throwable $failure): ?RunRefusal
    {
        $asks = $failure instanceof ListingDoubted;

        return $asks ? RunRefusal::Collapsed : null;
    }

    /** @return list<string> */
    private function placeholders(
        Site $site,
        RunPlace $where,
        Manifest $live,
        Manifest $target,
        RemoteDirectory $remote,
    ): array {
        $found = [];
        foreach (array_unique([...$site->start_pages, ...StartPages::USUAL]) as $name) {
            $path = $where->inRun($name);
            $entry = $live->get($path);
            if (
                $entry?->isFile() === true
                && $target->get($path) === null
                && (new PlaceholderPage)->isAt($remote, $where->served->child($name), $entry->size)
            ) {
                $found[] = $path;
            }
        }

        return $found;
    }

    /**
     * @return list<string> paths of files that count as put there by us, see LeftByUs; a run may have begun elsewhere,
     *     before an application went around the document root
     */
    public function ours(Deployment $deployment, ?RemotePath $place): array
    {
        $proven = $deployment->site->deployments()
            ->where('state', DeploymentState::Proven)
            ->whereNotNull('backup_id')
            ->get(self::OF_PAST_RUNS); // Their proofs and questions are long, and not needed.
        $to = $deployment->runPlace()->root;
        $runs = $proven->map(function (Deployment $run) use ($deployment, $to): PastRun {
            $run->setRelation('site', $deployment->site);
            $backup = (int) $run->backup_id;

            return match ($run->kind) {
                DeploymentKind::Deploy => PastRun::deploy(
                    $run->id,
                    $backup,
                    $run->directory,
                    fn (): array => $this->brought($run, $to),
                ),
                DeploymentKind::Undo => PastRun::undo($run->id, $backup, (int) $run->undoes_id),
                DeploymentKind::RestoreBackup => PastRun::restore(
                    $run->id,
                    $backup,
                    (int) $run->from_backup_id,
                    $run->paths,
                ),
                DeploymentKind::Files, DeploymentKind::RestoreFiles => PastRun::byHand($run->id, $backup),
            };
        });

        return LeftByUs::paths($runs, $place?->toString());
    }

    /** @return list<string> paths from a root of the files that a run was to put there */
    private function brought(Deployment $run, RemotePath $to): array
    {
        $from = $run->runPlace()->root;

        return array_values(array_filter(array_map(
            static fn (string $path): string => (string) $to->toward($from->join(RelativePath::fromString($path))),
            $this->files->brings($run),
        )));
    }
}
