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
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Package\VisibleFile;
use Cellarium\Core\Path\PathPattern;

/** The page of a package: its inspection. */
final readonly class PackagePage
{
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

    /** From the root of the site, as if nothing else were there. */
    public ServedView $served;

    /** Files that never leave, by the rules of its type. */
    public int $staysHere;

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
        $fitting = SiteMatches::forPackage($package, $types);
        $this->fits = $fitting->best();
        $this->better = $site === null ? null : $fitting->betterThan($site);
        $this->ofOthers = $site === null ? [] : self::notFound($fitting->ofOtherClients($site), $findings);
        $type = $types->get((string) $package->type);
        $folder = TypeRules::servedFolder($type);
        $fetchable = TypeRules::fetchable($contents, $type);
        $this->staysHere = count($contents->files()) - count(TypeRules::target($contents, $type)->files());
        $this->served = new ServedView(VisibleFile::all(
            $folder === '' ? $fetchable : $fetchable->inside($folder),
            VisibleFile::exposedBy($findings, $folder),
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

    /** The patterns of what never leaves. */
    public function neverLeaves(): string
    {
        return implode(', ', array_map(
            static fn (PathPattern $pattern): string => $pattern->pattern,
            $this->kind()->never ?? [],
        ));
    }

    /** Where in an installed system it goes; null for what goes elsewhere. */
    public function goesInside(): ?string
    {
        $type = $this->kind();

        return $type?->place !== Place::InsideSystem
            ? null
            : str_replace('{name}', $this->package->name, (string) $type->directory).'/ of '
                .($this->types->get((string) $type->system)->label ?? $type->system);
    }

    /** By what the addresses it would have are told. */
    public function landsWhere(): string
    {
        return match (true) {
            $this->site !== null => "on {$this->site->domain}",
            $this->goesInside() !== null => '',
            default => 'alone, by the usual start pages',
        };
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
}
