<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

/** Where versions of packages are live, and where they are what an undo would lead back to. */
final readonly class WhereRuns
{
    /** @param  array<int, list<RunningAt>>  $byPackage */
    private function __construct(private array $byPackage)
    {
    }

    /**
     * Of each place of a site the last deployment that was proven and not undone counts, and the one before it.
     *
     * @param  list<int>  $packages
     */
    public static function of(array $packages): self
    {
        if ($packages === []) {
            return new self([]);
        }
        $touched = Deployment::query()->whereIn('package_id', $packages)->select('site_id');
        $ranked = DB::table('deployments as d')
            ->join(
                'sites',
                'sites.id',
                '=',
                'd.site_id',
            )
            ->whereNull('sites.removed_at')
            ->whereIn('d.site_id', $touched)
            ->where('d.state', DeploymentState::Proven)
            ->whereIn('d.kind', [DeploymentKind::Deploy, DeploymentKind::RestoreBackup])
            ->whereNotExists(static fn ($undo) => $undo
                ->from('deployments as u')
                ->whereColumn('u.undoes_id', 'd.id')
                ->where('u.state', DeploymentState::Proven)
                ->where('u.kind', DeploymentKind::Undo))
            ->select(['d.package_id', 'd.site_id', 'd.directory', 'd.ended_at', 'sites.domain'])
            ->selectRaw('ROW_NUMBER() OVER (PARTITION BY d.site_id, d.directory ORDER BY d.id DESC) AS place');
        $byPackage = [];
        foreach (DB::query()->fromSub($ranked, 'ranked')->whereIn('package_id', $packages)->where('place', '<=', 2)
            ->orderBy('domain')->get() as $row) {
            $byPackage[(int) $row->package_id][] = new RunningAt(
                (int) $row->site_id,
                $row->domain,
                $row->directory,
                CarbonImmutable::parse($row->ended_at),
                (int) $row->place === 1,
            );
        }

        return new self($byPackage);
    }

    /** @return list<RunningAt> where it is live */
    public function live(int $package): array
    {
        return array_values(array_filter(
            $this->byPackage[$package] ?? [],
            static fn (RunningAt $at): bool => $at->isLive,
        ));
    }

    /** @return list<RunningAt> where an undo would lead back to it */
    public function wayBack(int $package): array
    {
        return array_values(array_filter(
            $this->byPackage[$package] ?? [],
            static fn (RunningAt $at): bool => ! $at->isLive,
        ));
    }
}
