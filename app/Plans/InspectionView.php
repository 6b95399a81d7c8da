<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Packages\FindingGroup;
use App\Storage\RunFiles;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Words\Count;

/** Findings of an upload's inspection, for the page of its plan. */
final readonly class InspectionView
{
    /**
     * @param  list<PackageFinding>  $leftOut
     * @param  list<FindingGroup>  $groups  of what goes
     * @param  int  $corrections  references whose files are there in another case
     * @param  bool  $isOpen  whether something can be said to it still
     * @param  string|null  $folder  of which is asked whether it is meant, or what lies in it
     */
    private function __construct(
        public array $leftOut,
        public array $groups,
        public int $corrections,
        public bool $isOpen,
        public ?string $folder,
    ) {
    }

    /** Null where nothing was uploaded, or nothing was found. */
    public static function forDeployment(Deployment $deployment, RunFiles $files, UploadInspection $inspection): ?self
    {
        [$leftOut, $findings] = $files->inspection($deployment) ?? [[], []];

        $folder = $deployment->state === DeploymentState::Planned ? $files->folder($deployment) : null;

        return $leftOut === [] && $findings === [] && $folder === null ? null : new self(
            $leftOut,
            FindingGroup::all($findings),
            count($inspection->corrections($deployment)),
            $deployment->state === DeploymentState::Planned,
            $folder,
        );
    }

    public function title(): string
    {
        $left = count($this->leftOut);

        return match (true) {
            $left === 0 => 'Found in the upload',
            $this->isOpen => Count::words($left, 'does not go up', 'do not go up'),
            default => Count::words($left, 'was left out', 'were left out'),
        };
    }
}
