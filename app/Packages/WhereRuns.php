<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** Sites that versions of packages are live on, and those that an undo would lead back to them. */
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
    public static function forPackages(array $packages): self
    {
        $touched = Deployment::query()->whereIn('package_id', $packages)->select('site_id');

        return $packages === [] ? new self([]) : new self(self::listed(
            self::ranked()->whereIn('d.site_id', $touched),
            static fn (Builder $rows) => $rows->whereIn('package_id', $packages),
        ));
    }

    /**
     * The same of all versions of these packages, however many there are: of most sites it is the last deployment, and
     * only the others are looked at more closely. Ways back are left out.
     *
     * @param  list<string>  $names
     */
    public static function ofNames(array $names): self
    {
        // What went into a directory, was undone or brought back lies over something else.
        $rows = DB::table('sites')
            ->join('deployments as d', 'd.id', '=', 'sites.last_deployment_id')
            ->leftJoin('packages as p', 'p.id', '=', 'd.package_id')
            ->whereNull('sites.removed_at')
            ->where(static fn (Builder $any) => $any
                ->whereIn('p.name', $names)
                ->orWhere('d.kind', '<>', DeploymentKind::Deploy)
                ->orWhereNotNull('d.directory'))
            ->orderBy('sites.domain')
            ->get([
                'd.package_id',
                'd.site_id',
                'd.directory',
                'd.kind',
                'd.ended_at',
                'sites.domain',
                'p.name',
                'p.version',
            ]);
        $isPlain = static fn (object $row): bool => $row->kind === DeploymentKind::Deploy->value
            && $row->directory === null;
        [$plain, $others] = $rows->partition($isPlain);
        $closer = $others->isEmpty() ? collect() : DB::query()
            ->fromSub(self::ranked()->whereIn('d.site_id', $others->pluck('site_id')), 'ranked')
            ->join('packages as p', 'p.id', '=', 'ranked.package_id')
            ->where('place', 1)
            ->whereIn('p.name', $names)
            ->get(['ranked.*', 'p.name', 'p.version']);

        return new self(self::byPackage([
            ...$plain->each(static fn (object $row): int => $row->place = 1),
            ...$closer,
        ]));
    }

    /** @return array<string, list<RunningAt>> where something is live, by the name of the package */
    public function byName(): array
    {
        $byName = [];
        foreach ($this->byPackage as $places) {
            foreach ($places as $at) {
                $byName[(string) $at->name][] = $at;
            }
        }

        return $byName;
    }

    private static function ranked(): Builder
    {
        return DB::table('deployments as d')
            ->join('sites', 'sites.id', '=', 'd.site_id')
            ->whereNull('sites.removed_at')
            ->where('d.state', DeploymentState::Proven)
            ->whereIn('d.kind', [DeploymentKind::Deploy, DeploymentKind::RestoreBackup])
            ->whereNotExists(static fn ($undo) => $undo
                ->from('deployments as u')
                ->whereColumn('u.undoes_id', 'd.id')
                ->where('u.state', DeploymentState::Proven)
                ->where('u.kind', DeploymentKind::Undo))
            ->select(['d.package_id', 'd.site_id', 'd.directory', 'd.ended_at', 'sites.domain'])
            ->selectRaw('ROW_NUMBER() OVER (PARTITION BY d.site_id, d.directory ORDER BY d.id DESC) AS place');
    }

    /**
     * @param  \Closure(Builder): Builder  $only
     * @return array<int, list<RunningAt>>
     */
    private static function listed(Builder $ranked, \Closure $only): array
    {
        return self::byPackage(
            $only(DB::query()->fromSub($ranked, 'ranked'))->where('place', '<=', 2)->orderBy('domain')->get(),
        );
    }

    /**
     * @param  iterable<object>  $rows
     * @return array<int, list<RunningAt>>
     */
    private static function byPackage(iterable $rows): array
    {
        $byPackage = [];
        foreach ($rows as $row) {
            $byPackage[(int) $row->package_id][] = new RunningAt(
                (int) $row->site_id,
                $row->domain,
                $row->directory,
                CarbonImmutable::parse($row->ended_at),
                (int) $row->place === 1,
                (int) $row->package_id,
                $row->name ?? null,
                $row->version ?? null,
            );
        }

        return $byPackage;
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
