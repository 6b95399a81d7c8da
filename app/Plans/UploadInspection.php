<?php

declare(strict_types=1);

namespace App\Plans;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\RunFiles;
use App\Work\Tasks;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Contents\UploadPlace;
use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\InspectedFiles;
use Cellarium\Core\Package\Mend\Mend;
use Cellarium\Core\Package\Mend\PackageMender;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\UploadFolder;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Words\Count;

/** Inspection of what comes by hand, and what a person says to it; each answer has the plan made anew. */
final readonly class UploadInspection
{
    public function __construct(private PackageIntake $intake, private RunFiles $files, private ContentStore $store)
    {
    }

    /**
     * @param  Manifest  $brought  paths from where the run begins, contents in the store
     * @param  Manifest  $server  what it holds, hashes where they are known
     */
    public function of(Deployment $deployment, Manifest $brought, Manifest $server): InspectedFiles
    {
        $inspected = InspectedFiles::inspect(
            $brought,
            new UploadPlace($server, (string) $deployment->runPlace()->public),
            $this->intake->inspector(),
            $this->files->overruled($deployment),
        );
        $this->files->keepInspection($deployment, $inspected);

        return $inspected;
    }

    /**
     * Asks whether a folder is meant, or what lies in it; what was answered is not asked again.
     *
     * @param  Manifest  $server  what it holds
     */
    public function askForFolder(Deployment $deployment, Manifest $brought, Manifest $server): void
    {
        $place = $deployment->runPlace();
        $into = $place->root->toward(RemotePath::fromString((string) $deployment->directory));
        $folder = UploadFolder::fromManifest(
            $brought,
            new UploadPlace($server, (string) $place->public),
            (string) $into,
            $deployment->site->start_pages,
        );
        $this->files->keepFolder($deployment, $this->files->isFolderMeant($deployment) ? null : $folder?->path);
    }

    /** @throws Problem */
    public function answerFolder(Deployment $deployment, bool $isMeant): void
    {
        $folder = $this->files->folder($deployment) ?? throw new Problem('Nothing is asked of a folder here.');
        $this->again($deployment);
        if ($isMeant) {
            $this->files->keepFolderMeant($deployment);
        } else {
            [$brought, $base] = $this->files->brought($deployment);
            $this->files->keepBrought($deployment, UploadFolder::named($folder)->lifted($brought), $base);
        }
        Record::write(
            RecordKind::PlanAnswered,
            "{$deployment->title()} on {$deployment->site->domain}: "
                .($isMeant ? "the folder $folder is meant" : "what lies in $folder is meant, and not the folder"),
            $deployment->site,
            ['deployment' => $deployment->id],
        );
        Tasks::order(MakePlan::class, $deployment->id);
    }

    /** What was left out, behind what a plan is recorded with; "" where nothing was. */
    public function leftOutInWords(Deployment $deployment): string
    {
        [$leftOut] = $this->files->inspection($deployment) ?? [[]];
        $names = array_map(static fn (PackageFinding $one): string => (string) $one->path, $leftOut);

        return $names === [] ? '' : '. Left out: '.implode(', ', $names);
    }

    /**
     * What was left out goes all the same.
     *
     * @param  list<string>  $paths  as they were told
     *
     * @throws Problem
     */
    public function overrule(Deployment $deployment, array $paths, string $reason): void
    {
        [$leftOut] = $this->files->inspection($deployment) ?? [[]];
        $known = array_map(static fn (PackageFinding $one): string => (string) $one->path, $leftOut);
        $chosen = array_values(array_intersect($known, $paths));
        $chosen === [] && throw new Problem(
            'Nothing was chosen of what was left out. Tick what is to go all the same.',
        );
        $this->again($deployment);
        $this->files->keepOverruled($deployment, [...$this->files->overruled($deployment), ...$chosen]);
        Record::write(
            RecordKind::InspectionOverruled,
            "{$deployment->site->domain}: ".implode(', ', $chosen)
                ." goes up although it was left out, because: $reason",
            $deployment->site,
            ['deployment' => $deployment->id],
        );
        Tasks::order(MakePlan::class, $deployment->id);
    }

    /**
     * References that differ only in case are written as the files are called.
     *
     * @throws Problem
     */
    public function correct(Deployment $deployment): void
    {
        $mends = $this->corrections($deployment);
        $mends === [] && throw new Problem('There is nothing to correct in what was uploaded.');
        [$brought, $base] = $this->files->brought($deployment);
        $mending = new PackageMender($this->store);
        $plan = $mending->plan($brought, $mends);
        $this->again($deployment);
        $this->files->keepBrought($deployment, $mending->carryOut($plan), $base);
        $count = count($plan->changes);
        Record::write(
            RecordKind::UploadCorrected,
            "{$deployment->site->domain}: ".Count::words($count, 'reference')
                .' of an upload corrected',
            $deployment->site,
            ['deployment' => $deployment->id],
        );
        Tasks::order(MakePlan::class, $deployment->id);
    }

    /** @return list<Mend> of references whose files are there in another case */
    public function corrections(Deployment $deployment): array
    {
        [, $findings] = $this->files->inspection($deployment) ?? [[], []];

        return Mend::all(array_values(array_filter(
            $findings,
            static fn (PackageFinding $one): bool => $one->code === FindingCode::ReferenceCase,
        )));
    }

    /** @throws Problem where it was started meanwhile */
    private function again(Deployment $deployment): void
    {
        $deployment->load('site.account', 'package', 'fromBackup', 'undoes.package');
        Deployment::where(['id' => $deployment->id, 'state' => DeploymentState::Planned])
            ->update(['state' => DeploymentState::Drafting, 'started_at' => null]) === 1
            || throw new Problem('This plan was started already, or is being made anew. Nothing was changed.');
    }
}
