<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
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
use App\Record\Record;
use App\Storage\RunFiles;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;

/** Orders plans, which asks no server; they are made afterwards, in a worker or at once. */
final readonly class Plans
{
    public function __construct(
        private RunFiles $files,
        private PackageChecks $checks,
        private DeploymentRoots $roots,
        private PlanMaker $maker,
    ) {
    }

    /** @throws Problem */
    public function orderDeploy(DeploymentRequest $request): Deployment
    {
        [$site, $package, $as, $reason] = [$request->site, $request->package, $request->as, $request->reason];
        $this->checks->check($site, $package);
        $this->checks->checkFit($site, $package, $reason);
        [$root, $place] = $this->roots->of($site, $package, $request->place);
        $as?->read_only && throw new Problem("$as->login may only read. Choose another user, or none.");
        $reaches = $as === null || $root->seenFrom($as->path()) !== null;
        if (! $reaches) {
            throw new Problem(
                "$as->login lands in $as->directory and cannot touch $root. Choose another user, or none.",
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
                'root' => DeploymentRoots::stored($site, $root),
                'reason' => $reason,
            ],
            $request->person,
        );
    }

    /**
     * Everything in a document root as a backup holds it, or what was chosen of it.
     *
     * @param  list<string>  $paths  of files, and of folders with all below them; none for everything
     * @param  Site|null  $to  another site of the same client
     *
     * @throws Problem
     */
    public function orderRestoreBackup(
        Backup $backup,
        ?Person $person = null,
        array $paths = [],
        ?Site $to = null,
    ): Deployment {
        if ($backup->state !== BackupState::Verified || $backup->name === null) {
            throw new Problem("Backup $backup->id was not verified and cannot be restored. Choose another one.");
        }
        $isElsewhere = $to !== null && $to->id !== $backup->site_id;
        if ($isElsewhere && $to->owner()->id !== $backup->site->owner()->id) {
            $client = $backup->site->owner()->name;
            throw new Problem("$to->domain belongs to another client. Choose a site of $client.");
        }

        return $this->order(
            $to ?? $backup->site,
            DeploymentKind::RestoreBackup,
            [
                'from_backup_id' => $backup->id,
                'root' => match (true) {
                    ! $isElsewhere => $backup->root,
                    $backup->root === $backup->site->application_root => $to->application_root,
                    default => null,
                },
                'paths' => $paths === [] ? null : $paths,
            ],
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
            ['undoes_id' => $done->id, 'root' => $done->root],
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
            ['undoes_id' => $done->id, 'root' => $done->root],
            $person,
        );
    }

    /**
     * One file that was set aside, back where it was.
     *
     * @throws Problem
     */
    public function orderRestoreFile(SetAside $held, ?Person $person = null): Deployment
    {
        if ($held->restored_at !== null || $held->held_until->isPast()) {
            throw new Problem("$held->path is no longer held. Restore it from a backup.");
        }

        return $this->order(
            $held->site,
            DeploymentKind::RestoreFiles,
            [
                'undoes_id' => $held->deployment_id,
                'set_aside_id' => $held->id,
                'root' => $held->deployment->root,
            ],
            $person,
        );
    }

    /**
     * Files that a person brought into a directory of a site.
     *
     * @param  Manifest  $brought  paths from where the site begins, contents in the store
     * @param  Manifest|null  $base  what of it was downloaded before, where it was
     *
     * @throws Problem
     */
    public function orderFiles(
        Site $site,
        RemotePath $into,
        Manifest $brought,
        ?Manifest $base,
        ?Person $person = null,
    ): Deployment {
        $root = $site->applicationRoot();
        $deployment = $this->order(
            $site,
            DeploymentKind::Files,
            ['directory' => $into->toString(), 'root' => DeploymentRoots::stored($site, $root)],
            $person,
        );
        $this->files->keepBrought($deployment, $brought, $base);

        return $deployment;
    }

    /**
     * Not kept: only for looking what would be done.
     *
     * @throws Problem
     */
    public function draft(Site $site, Package $package): Deployment
    {
        $this->checks->check($site, $package);

        return $this->roots->draft($site, $package);
    }

    public function deploy(
        Site $site,
        Package $package,
        ?FtpUser $as = null,
        ?Person $person = null,
        ?RemotePath $place = null,
    ): Deployment {
        return $this->maker->make($this->orderDeploy(new DeploymentRequest($site, $package, $as, $person, $place)));
    }

    public function restore(Backup $backup, ?Person $person = null): Deployment
    {
        return $this->maker->make($this->orderRestoreBackup($backup, $person));
    }

    /** @param  array<string, int|string|list<string>|null>  $links */
    private function order(Site $site, DeploymentKind $kind, array $links, ?Person $person): Deployment
    {
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

        return $deployment->load('package', 'fromBackup', 'undoes.backup', 'person', 'ftpUser');
    }
}
