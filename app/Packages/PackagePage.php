<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use App\Models\Site;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Finding\Severity;
use Cellarium\Core\Package\Mend\MendChange;
use Cellarium\Core\Package\Served;
use Cellarium\Core\Package\ServedAs;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;

/** What the page of a package shows of its inspection. */
final readonly class PackagePage
{
    /** So many addresses are shown at once. */
    private const FIRST_ADDRESSES = 12;

    private const MOST_ADDRESSES = 200;

    /** @var list<FindingGroup> what stops it or is to be looked at */
    public array $groups;

    /** @var list<FindingGroup> */
    public array $notes;

    /** How many can be mended without looking at each of them. */
    public int $safe;

    /** @var array<string, MendChange> by "path:offset" */
    public array $places;

    /** @var list<FittingSite> best first */
    public array $fits;

    /** @var list<NamedSite> of other clients than the chosen site's */
    public array $ofOthers;

    /** The site that fits better than the one that is chosen. */
    public ?FittingSite $better;

    /** @var list<Served> those that need a look first */
    private array $served;

    public function __construct(
        public Package $package,
        public Manifest $contents,
        Packages $packages,
        public ?Site $site,
        private PackageTypes $types,
    ) {
        $findings = $package->notes();
        $isNote = static fn (FindingGroup $group): bool => $group->severity() === Severity::Note;
        $groups = FindingGroup::all($findings);
        $this->notes = array_values(array_filter($groups, $isNote));
        $this->groups = array_values(array_udiff(
            $groups,
            $this->notes,
            static fn (FindingGroup $a, FindingGroup $b): int => spl_object_id($a) <=> spl_object_id($b),
        ));
        $this->safe = count(MendChoice::allThatIsSafe()->of($findings));
        $shown = array_merge([], ...array_map(static fn (FindingGroup $group): array => $group->first(), $groups));
        $this->places = $packages->places($contents, $shown);
        $fitting = Fitting::of($package);
        $this->fits = $fitting->best();
        $this->better = $site === null ? null : $fitting->betterThan($site);
        $this->ofOthers = $site === null ? [] : self::notFound($fitting->ofOtherClients($site), $findings);
        $this->served = self::byNeed(Served::all(
            $contents,
            $findings,
            $site->start_pages ?? StartPages::USUAL,
        ));
    }

    /**
     * @param  list<NamedSite>  $named
     * @param  list<PackageFinding>  $findings
     * @return list<NamedSite> those that no finding tells already
     */
    private static function notFound(array $named, array $findings): array
    {
        $told = implode("\n", array_map(
            static fn (PackageFinding $one): string => $one->code === FindingCode::ClientOther ? $one->message : '',
            $findings,
        ));

        return array_values(array_filter(
            $named,
            static fn (NamedSite $one): bool => ! str_contains($told, $one->site->domain),
        ));
    }

    /** What it is, for people; null where nothing is known of it. */
    public function kind(): ?PackageType
    {
        return $this->types->get((string) $this->package->type);
    }

    /** In a few words, beside its name. */
    public function kindInWords(): string
    {
        return $this->kind()->label ?? 'of no known type';
    }

    /** @return list<PackageType> those it may be, where several fit equally well */
    public function choices(): array
    {
        return array_values(array_filter(array_map($this->types->get(...), $this->package->type_choices ?? [])));
    }

    /** @return list<PackageType> */
    public function allKinds(): array
    {
        return $this->types->all();
    }

    public function place(PackageFinding $finding): ?MendChange
    {
        return $this->places["$finding->path:$finding->offset"] ?? null;
    }

    /** @return int how many findings are notes */
    public function noteCount(): int
    {
        return array_sum(array_map(static fn (FindingGroup $group): int => count($group->findings), $this->notes));
    }

    /** @return list<Served> */
    public function firstServed(): array
    {
        return array_slice($this->served, 0, self::FIRST_ADDRESSES);
    }

    /** @return list<Served> */
    public function otherServed(): array
    {
        return array_slice($this->served, self::FIRST_ADDRESSES, self::MOST_ADDRESSES - self::FIRST_ADDRESSES);
    }

    public function servedNotShown(): int
    {
        return max(0, count($this->served) - self::MOST_ADDRESSES);
    }

    /**
     * @param  list<Served>  $served
     * @return list<Served> the top, what should not be fetched, pages, listings
     */
    private static function byNeed(array $served): array
    {
        $rank = static fn (Served $one): int => match (true) {
            $one->address === '/' => 0,
            $one->as === ServedAs::Exposed => 1,
            $one->as === ServedAs::Listing && $one->hasPages => 2,
            $one->as === ServedAs::Page => 3,
            default => 4,
        };
        usort($served, static fn (Served $a, Served $b): int => $rank($a) <=> $rank($b));

        return $served;
    }
}
