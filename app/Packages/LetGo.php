<?php

declare(strict_types=1);

namespace App\Packages;

use App\Failure\Problem;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Package;
use App\Models\RecordKind;
use App\Record\Record;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** Lets versions go that can be let go, and says why others cannot. Their contents are swept away later. */
final readonly class LetGo
{
    /**
     * @param  Collection<int, Package>  $packages
     * @param  array<int, string>  $staying  why a version stays, by its id
     */
    private function __construct(public Collection $packages, private array $staying)
    {
    }

    /** @param  list<int>  $ids */
    public static function forPackages(array $ids): self
    {
        $packages = Package::kept()->whereIn('id', $ids)->orderBy('name')->orderByDesc('id')->get();
        $kept = $packages->pluck('id')->all();
        $runs = WhereRuns::forPackages($kept);
        $waiting = Deployment::whereIn('package_id', $kept)
            ->whereIn('state', DeploymentState::OPEN)
            ->pluck('package_id')
            ->flip();
        $staying = [];
        foreach ($packages as $package) {
            $live = $runs->live($package->id);
            $back = $runs->wayBack($package->id);
            $why = match (true) {
                $live !== [] => 'is live on '.self::domains($live),
                $back !== [] => 'is the way back of '.self::domains($back),
                $waiting->has($package->id) => 'is in a plan or a deployment that has not ended',
                default => null,
            };
            $why === null || $staying[$package->id] = $why;
        }

        return new self($packages, $staying);
    }

    /**
     * All versions of these packages but the newest.
     *
     * @param  list<string>  $names
     */
    public static function olderOf(array $names): self
    {
        $newest = Package::kept()->whereIn('name', $names)->groupBy('name')->selectRaw('MAX(id) AS id')->pluck('id');

        return self::forPackages(
            Package::kept()->whereIn('name', $names)->whereNotIn('id', $newest)->pluck('id')->all(),
        );
    }

    /** @return Collection<int, Package> */
    public function going(): Collection
    {
        return $this->packages->reject(fn (Package $package): bool => isset($this->staying[$package->id]))->values();
    }

    /** @return Collection<int, Package> */
    public function staying(): Collection
    {
        return $this->packages->filter(fn (Package $package): bool => isset($this->staying[$package->id]))->values();
    }

    public function why(Package $package): string
    {
        return $this->staying[$package->id] ?? '';
    }

    /**
     * Only what nobody needs goes, however it was asked for.
     *
     * @return int how many
     *
     * @throws Problem where none can go
     */
    public function carryOut(): int
    {
        $going = $this->going();
        if ($going->isEmpty()) {
            throw new Problem(
                'None of these can be let go: each is live, a way back, or in a plan. Nothing was changed.',
            );
        }
        DB::transaction(static function () use ($going): void {
            $ids = $going->pluck('id')->all();
            Package::whereIn('id', $ids)->update(['let_go_at' => now()]);
            DB::table('package_manifests')->whereIn('package_id', $ids)->delete();
            DB::table('package_marks')->whereIn('package_id', $ids)->delete();
            foreach ($going as $package) {
                Record::write(
                    RecordKind::PackageLetGo,
                    "{$package->title()} let go: $package->files files",
                    facts: ['sha256' => $package->sha256],
                );
            }
        });

        return $going->count();
    }

    /** @throws Problem where its files are no longer here */
    public static function mustBeHere(Package $package): void
    {
        $package->isLetGo() && throw new Problem(
            "{$package->title()} was let go; its files are no longer here. Upload it again.",
        );
    }

    /** @param  non-empty-list<RunningAt>  $at */
    private static function domains(array $at): string
    {
        $more = count($at) - 1;

        return $at[0]->domain.($more > 0 ? ' and '.number_format($more).' more' : '');
    }
}
