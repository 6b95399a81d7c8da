<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\FtpUser;
use App\Models\Package;
use App\Models\Person;
use App\Models\RecordKind;
use App\Models\SetAside;
use App\Models\Site;
use App\Packages\FindingGroup;
use App\Packages\Fitting;
use App\Packages\LetGo;
use App\Packages\Types;
use App\Record\Record;
use App\Storage\RunFiles;
use App\Storage\RunLimits;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\CollapseCheck;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Deployment\RunRefusal;
use Cellarium\Core\Deployment\RunRefused;
use Cellarium\Core\DocumentRoot\PlaceholderPage;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanImpossible;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Undo;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Survey;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\SurveyStopped;
use Cellarium\Core\Transfer\TransferFailed;

/**
 * Makes plans: looks at the server and compares. Nothing is changed there.
 *
 * A plan is ordered first, which asks no server, and made afterwards, in a worker or at once.
 */
final readonly class Plans
{
    private const SECONDS_BETWEEN_LOOKS = 0.5;

    public function __construct(
        private Connections $connections,
        private RunFiles $files,
        private BackupShelf $shelf,
        private Types $types,
    ) {
    }

    /**
     * @param  RemotePath|null  $place  a directory inside the document root; null for the document root itself
     * @param  string|null  $reason  why it goes there although another site fits better
     *
     * @throws Problem
     */
    public function orderDeploy(
        Site $site,
        Package $package,
        ?FtpUser $as = null,
        ?Person $person = null,
        ?RemotePath $place = null,
        ?string $reason = null,
    ): Deployment {
        $place = $place?->equals($site->root()) === true ? null : $place;
        $this->checkPackage($site, $package, $place);
        $this->checkFit($site, $package, $reason);
        $as?->read_only && throw new Problem("$as->login may only read. Choose another user, or none.");
        $reaches = $as === null || $site->root()->seenFrom($as->path()) !== null;
        if (! $reaches) {
            throw new Problem(
                "$as->login lands in $as->directory and cannot "
                    ."touch $site->document_root. Choose another user, or none.",
            );
        }

        $reason === null || Record::write(
            RecordKind::DeploymentReasoned,
            "{$package->title()} goes to $site->domain, because: $reason",
            $site,
        );

        return $this->order(
            $site,
            DeploymentKind::Deploy,
            [
                'package_id' => $package->id,
                'ftp_user_id' => $as?->id,
                'directory' => $place?->toString(),
                'reason' => $reason,
            ],
            $person,
        );
    }

    /**
     * Everything in a document root as a backup holds it.
     *
     * @throws Problem
     */
    public function orderRestoreBackup(Backup $backup, ?Person $person = null): Deployment
    {
        if ($backup->state !== BackupState::Verified || $backup->name === null) {
            throw new Problem("Backup $backup->id was not verified and cannot be restored. Choose another one.");
        }

        return $this->order(
            $backup->site,
            DeploymentKind::RestoreBackup,
            ['from_backup_id' => $backup->id],
            $person,
        );
    }

    /**
     * One step back to the state before a deployment.
     *
     * @throws Problem
     */
    public function orderUndo(Deployment $done, ?Person $person = null): Deployment
    {
        if (
            $done->state !== DeploymentState::Proven
            || $done->backup?->name === null
            || $this->files->after($done) === null
        ) {
            throw new Problem('Only a deployment that was carried out and proven can be undone. Restore a backup.');
        }

        return $this->order(
            $done->site,
            DeploymentKind::Undo,
            ['undoes_id' => $done->id],
            $person,
        );
    }

    /**
     * Files that a deployment set aside, back where they were; what lies there now stays.
     *
     * @throws Problem
     */
    public function orderRestoreFiles(Deployment $done, ?Person $person = null): Deployment
    {
        if (! SetAside::held()->where('deployment_id', $done->id)->exists()) {
            throw new Problem(
                'Nothing that this deployment set aside is held any more. Restore the backup taken before it.',
            );
        }

        return $this->order(
            $done->site,
            DeploymentKind::RestoreFiles,
            ['undoes_id' => $done->id],
            $person,
        );
    }

    public function deploy(
        Site $site,
        Package $package,
        ?FtpUser $as = null,
        ?Person $person = null,
        ?RemotePath $place = null,
        ?string $reason = null,
    ): Deployment {
        return $this->make($this->orderDeploy(
            $site,
            $package,
            $as,
            $person,
            $place,
            $reason,
        ));
    }

    public function restore(Backup $backup, ?Person $person = null): Deployment
    {
        return $this->make($this->orderRestoreBackup($backup, $person));
    }

    /**
     * Looks at the server and writes the plan down, or why there is none.
     *
     * @throws Problem|RemoteFailure|TransferFailed|PlanImpossible|RunRefused|SurveyStopped|Cancelled
     */
    public function make(Deployment $deployment): Deployment
    {
        try {
            [$target, $policy, $survey, $plan] = match ($deployment->kind) {
                DeploymentKind::Deploy => $this->compare(
                    $deployment->site,
                    $deployment->package ?? throw new Problem(
                        'The package of this deployment is no longer here. Upload it again and make a new plan.',
                    ),
                    $deployment->place(),
                    $deployment,
                ),
                DeploymentKind::RestoreBackup => $this->compareBackup($deployment),
                DeploymentKind::RestoreFiles => $this->compareSetAside($deployment),
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
        $this->files->keepDraft($deployment, $target, $plan);
        $deployment->update([
            'state' => DeploymentState::Planned,
            'seen' => $survey->manifest->digest(),
            'policy' => $policy->toArray(),
            'counts' => $plan->counts(),
            'planned_at' => now(),
            'started_at' => null,
            'progress' => null,
            'trouble' => null,
        ]);
        Record::write(
            RecordKind::PlanMade,
            "Plan made for {$deployment->site->domain}: {$deployment->title()}",
            $deployment->site,
            ['deployment' => $deployment->id],
            $deployment->person,
        );

        return $deployment;
    }

    /**
     * A plan without keeping it.
     *
     * @param  Deployment|null  $watched  where it is written how the look goes on, and read whether it was cancelled
     * @return array{Manifest, Policy, Survey, Plan}
     */
    public function compare(
        Site $site,
        Package $package,
        ?RemotePath $place = null,
        ?Deployment $watched = null,
    ): array {
        $this->checkPackage($site, $package, $place);
        $remote = $this->connections->remote($site->account);
        $survey = $this->survey($site, $remote, $watched);
        $type = $this->types->types()->get((string) $package->type);
        $destination = (new Destinations($this->types->types(), $remote))->of(
            $site,
            $package,
            $place,
            $survey->manifest,
        );
        if ($watched !== null && $destination->place !== null) {
            $watched->update(['directory' => $destination->place->toString()]);
        }
        $target = TypeRules::target($package->contents(), $type);
        $below = $destination->place === null ? null : $site->root()->toward($destination->place);
        // What is deployed further down leaves everything beside it as it is; the backup holds the whole site either
        // way.
        $policy = new Policy(
            [...$site->kept, ...TypeRules::keeps($type, (string) $below)],
            $below === null ? $this->placeholders(
                $site,
                $survey->manifest,
                $target,
                $remote,
            ) : [],
            array_values(array_unique([...$this->ours($site, $destination->place), ...$destination->replaced])),
        );
        $target = $below === null ? $target : $target->below($below);

        return [$target, $policy, $survey, Planner::plan($target, $survey->manifest, $policy)];
    }

    /** @return array{Manifest, Policy, Survey, Plan} */
    private function compareBackup(Deployment $deployment): array
    {
        $target = $this->shelf->manifest((string) $deployment->fromBackup?->name);
        $survey = $this->survey($deployment->site, $this->connections->remote($deployment->site->account), $deployment);
        $policy = new Policy(exact: true);

        return [$target, $policy, $survey, Planner::plan($target, $survey->manifest, $policy)];
    }

    /** @return array{Manifest, Policy, Survey, Plan} */
    private function compareUndo(Deployment $deployment): array
    {
        $done = $deployment->undoes ?? throw new Problem(
            'The deployment to undo is no longer known. Restore the backup taken before it.',
        );
        $after = $this->files->after($done) ?? throw new Problem('What that deployment left is no longer known. '
            .'Restore the backup taken before it.');
        $survey = $this->survey($deployment->site, $this->connections->remote($deployment->site->account), $deployment);
        $undo = Undo::of(
            $this->files->plan($done),
            $this->shelf->manifest((string) $done->backup?->name),
            $after,
            $survey->manifest,
        );
        if ($undo->changedSince !== []) {
            throw new Problem(
                implode(', ', array_slice($undo->changedSince, 0, 5))
                    .(count($undo->changedSince) > 5 ? ' and others' : '')
                    .' changed on the server since this deployment. Going back would overwrite that. Look at it '
                    .'first, or restore the backup as a whole.',
            );
        }
        $policy = new Policy(exact: true);

        return [$undo->target, $policy, $survey, Planner::plan($undo->target, $survey->manifest, $policy)];
    }

    /** @return array{Manifest, Policy, Survey, Plan} */
    private function compareSetAside(Deployment $deployment): array
    {
        $survey = $this->survey($deployment->site, $this->connections->remote($deployment->site->account), $deployment);
        $entries = [];
        foreach (SetAside::held()->where('deployment_id', $deployment->undoes_id)->get() as $held) {
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
        $target = Manifest::of($entries);
        $policy = new Policy;

        return [$target, $policy, $survey, Planner::plan($target, $survey->manifest, $policy)];
    }

    /** @throws Problem where it does not belong into a document root, or nobody has said what it is */
    private function checkKind(Package $package): void
    {
        if (($package->type_choices ?? []) !== []) {
            throw new Problem(
                "{$package->title()} may be of several kinds. Say on its page which one, then deploy it.",
            );
        }
        $type = $this->types->types()->get((string) $package->type);
        if ($type?->place === Place::AboveDocumentRoot) {
            throw new Problem(
                "{$package->title()} is of the type $type->label: its $type->directory/ is the document root, and the "
                    .'rest lies above it. Cellarium puts files into document roots only; put it there over the '
                    .'account.',
            );
        }
    }

    /** @throws Problem where another site fits better and nobody has said why it goes here */
    private function checkFit(Site $site, Package $package, ?string $reason): void
    {
        $better = $reason === null ? Fitting::of($package)->betterThan($site) : null;
        if ($better !== null) {
            throw new Problem(
                "{$package->title()} fits {$better->site->domain} better than $site->domain: "
                    ."{$better->fit->inWords()}. "
                    .'Choose that one, or say why it goes here all the same.',
            );
        }
    }

    /** @throws Problem */
    private function checkPackage(Site $site, Package $package, ?RemotePath $place): void
    {
        if ($place !== null && $site->root()->toward($place) === null) {
            throw new Problem("$place does not lie in the document root of $site->domain, $site->document_root.");
        }
        LetGo::mustBeHere($package);
        $this->checkKind($package);
        $stops = collect($package->notes())->filter(static fn (PackageFinding $finding): bool => $finding->stops());
        // Which names are start pages is the site's to say, not the package's.
        $held = $stops->first(static fn (PackageFinding $finding): bool => ! $finding->code->isOfStartPage());
        $held === null || throw new Problem(
            "{$package->title()} cannot go live: ".FindingGroup::where($held).$held->message,
        );
        $isPart = $this->types->types()->get((string) $package->type)?->place === Place::InsideSystem;
        if (! $isPart && $package->contents()->startPage($site->start_pages) === null) {
            $stop = $stops->first();
            throw new Problem(
                "{$package->title()} cannot go to $site->domain: "
                    .($stop->message
                        ?? 'none of the start pages of this site ('
                            .implode(', ', $site->start_pages)
                            .') stands at its top.'),
            );
        }
    }

    private function survey(Site $site, RemoteDirectory $remote, ?Deployment $watched): Survey
    {
        $pool = new SequentialPool($remote);
        $survey = (new Surveyor(
            $pool,
            RunLimits::survey(),
            $watched === null ? null : $this->watching($watched),
        ))->survey($site->root());
        [$known, $at] = $this->files->known($site);
        $collapse = $watched?->collapse_accepted === true
            ? null
            : (new CollapseCheck($pool, RunLimits::collapseShare()))->look(
                $site->root(),
                $survey->manifest,
                $known,
            );
        if ($collapse !== null) {
            throw RunRefused::collapsed($collapse);
        }

        return new Survey($survey->manifest->withKnownHashes($known, $at - 60), $survey->temporary);
    }

    /**
     * @return \Closure(int, int): void writes down how far a look has come, a few times a second, and ends it when
     *     it was cancelled
     */
    private function watching(Deployment $deployment): \Closure
    {
        $next = 0.0;

        return static function (int $directories, int $entries) use ($deployment, &$next): void {
            if (microtime(true) < $next) {
                return;
            }
            $next = microtime(true) + self::SECONDS_BETWEEN_LOOKS;
            $deployment->update(['progress' => ['directories' => $directories, 'entries' => $entries]]);
            if (Deployment::where('id', $deployment->id)->whereNotNull('cancelled_at')->exists()) {
                throw Cancelled::byAPerson();
            }
        };
    }

    /** @param  array<string, int|string|null>  $links */
    private function order(
        Site $site,
        DeploymentKind $kind,
        array $links,
        ?Person $person,
    ): Deployment {
        $site->isRemoved()
            && throw new Problem("$site->domain is removed from Cellarium. Undo the removal first.");
        $deployment = Deployment::create([
            'site_id' => $site->id,
            'kind' => $kind,
            'person_id' => ($person ?? Person::viewer())?->id,
            'state' => DeploymentState::Drafting,
            'policy' => [],
            'counts' => [],
        ] + $links);
        $deployment->refresh()->setRelation('site', $site);

        return $deployment->load(
            'package',
            'fromBackup',
            'undoes.backup',
            'person',
            'ftpUser',
        );
    }

    /** What a person can answer, so that the plan is made after all; null where it cannot. */
    private static function question(\Throwable $failure): ?RunRefusal
    {
        $asks = $failure instanceof RunRefused && $failure->reason === RunRefusal::Collapsed;

        return $asks ? RunRefusal::Collapsed : null;
    }

    /** @return list<string> */
    private function placeholders(
        Site $site,
        Manifest $live,
        Manifest $target,
        RemoteDirectory $remote,
    ): array {
        $found = [];
        foreach (array_unique([...$site->start_pages, ...StartPages::USUAL]) as $name) {
            $entry = $live->get($name);
            if (
                $entry?->isFile() === true
                && $target->get($name) === null
                && (new PlaceholderPage)->isAt($remote, $site->root()->child($name), $entry->size)
            ) {
                $found[] = $name;
            }
        }

        return $found;
    }

    /**
     * @return list<string> paths the last deployment to this place put there, as long as nothing was brought or
     *     taken back since
     */
    private function ours(Site $site, ?RemotePath $place): array
    {
        $proven = $site->deployments()->where('state', DeploymentState::Proven)->latest('ended_at')->latest('id');
        $last = (clone $proven)
            ->where('kind', DeploymentKind::Deploy)
            ->where('directory', $place?->toString())
            ->first();
        $back = (clone $proven)->where('kind', '!=', DeploymentKind::Deploy)->first();
        if ($last === null || ($back !== null && $back->id > $last->id)) {
            return [];
        }

        return array_map(static fn ($entry): string => $entry->path->toString(), $this->files->target($last)->files());
    }
}
