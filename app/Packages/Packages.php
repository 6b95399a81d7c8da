<?php

declare(strict_types=1);

namespace App\Packages;

use App\Failure\Problem;
use App\Models\Package;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Inspection;
use Cellarium\Core\Package\Mend\Mend;
use Cellarium\Core\Package\Mend\MendChange;
use Cellarium\Core\Package\Mend\MendPlan;
use Cellarium\Core\Package\Mend\PackageMender;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\PackageOrigin;
use Cellarium\Core\Package\PackageRefused;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Reference\Links;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;

/** Takes packages in, and makes mended ones of them; the same bytes are the same package. */
final readonly class Packages
{
    public function __construct(private PackageIntake $intake, private ContentStore $store)
    {
    }

    /**
     * @param  string  $name  the file name people gave it
     *
     * @throws PackageRefused
     * @throws StoreFailure
     */
    public function take(string $file, string $name): Package
    {
        $name = mb_substr(basename(str_replace('\\', '/', mb_scrub($name))), 0, 200);
        $sha256 = (string) hash_file('sha256', $file);
        $known = Package::kept()->where('sha256', $sha256)->first();
        if ($known !== null) {
            return $known;
        }
        try {
            $last = Package::where('name', PackageOrigin::named($name)->name)->latest('id')->first();
            $found = $this->intake->take($file, $name, $last?->notes() ?? []);
        } catch (PackageRefused $refused) {
            Record::write(RecordKind::PackageRefused, "$name was not uploaded: {$refused->getMessage()}");
            throw $refused;
        }
        $package = $this->add($found, [
            'file_name' => $name,
            'sha256' => $sha256,
            'packed_bytes' => filesize($file),
        ]);
        Record::write(
            RecordKind::PackageAdded,
            "{$package->title()} uploaded: $package->files files",
            facts: ['sha256' => $sha256],
        );

        return $package;
    }

    /** What mending would do; nothing is done yet. */
    public function mendPlan(Package $package, MendChoice $choice): MendPlan
    {
        return (new PackageMender($this->store))->plan($package->contents(), $choice->of($package->notes()));
    }

    /**
     * How findings about a place would be written then, for those that can be mended.
     *
     * @param  list<PackageFinding>  $findings
     * @return array<string, MendChange> by "path:offset"
     */
    public function places(Manifest $contents, array $findings): array
    {
        $mends = array_filter(Mend::all($findings), static fn (Mend $mend): bool => $mend->finding->offset !== null);
        $changes = [];
        foreach ((new PackageMender($this->store))->plan($contents, array_values($mends))->changes as $change) {
            $changes["$change->path:$change->offset"] = $change;
        }

        return $changes;
    }

    /**
     * Makes a package of its own; the one it is made from stays as it is.
     *
     * @throws Problem where nothing would change, or something would break that is right now
     * @throws StoreFailure
     */
    public function mend(Package $package, MendChoice $choice): Package
    {
        $plan = $this->mendPlan($package, $choice);
        if ($plan->changes === []) {
            throw new Problem('There is nothing here that can be mended without changing more than that.');
        }
        $contents = (new PackageMender($this->store))->carryOut($plan);
        $sha256 = hash('sha256', $contents->toText());
        $known = Package::kept()->where('sha256', $sha256)->first();
        if ($known !== null) {
            return $known;
        }
        $version = MendedVersion::next($package);
        $found = $this->intake->inspector()->inspect(
            $contents,
            new PackageOrigin($package->name, $version, isSaid: true),
            $package->notes(),
        );
        $worse = MendedVersion::worse($package->notes(), $found->findings);
        if ($worse !== null) {
            throw new Problem(
                'Mending this would bring something new: '.FindingGroup::where($worse).$worse->message
                    .' Nothing was changed. Mend fewer at a time, or mend it where it was built.',
            );
        }
        $mended = $this->add($found, [
            'file_name' => $package->file_name,
            'sha256' => $sha256,
            'packed_bytes' => null,
            'mended_from' => $package->id,
            'mends' => array_map(static fn (MendChange $change): array => $change->toArray(), $plan->changes),
        ]);
        Record::write(
            RecordKind::PackageMended,
            "{$mended->title()} made from {$package->title()}: ".count($plan->changes).' mended',
            facts: ['sha256' => $sha256],
        );

        return $mended;
    }

    /** What kind it is, said by somebody; it is looked through again for that. */
    public function sayType(Package $package, string $type): void
    {
        $found = $this->intake->inspector()->inspect(
            $package->contents(),
            new PackageOrigin(
                $package->name,
                $package->version,
                $package->wrapper,
                isSaid: $package->is_named || $package->mended_from !== null,
            ),
            [],
            $type,
        );
        $package->update(self::columns($found));
        Record::write(RecordKind::PackageTypeSaid, "{$package->title()} is of the type $type, by the word of a person");
    }

    /** The name that its versions share, and which of them it is; said by somebody. */
    public function name(Package $package, string $name, ?string $version): void
    {
        $before = $package->title();
        $package->update([
            'name' => $name,
            'version' => $version,
            'is_named' => true,
        ]);
        Record::write(RecordKind::PackageNamed, "$before is called {$package->title()} now");
    }

    /** @param  array<string, mixed>  $facts  where it is from */
    private function add(Inspection $found, array $facts): Package
    {
        return Package::add(
            [...$facts, ...self::columns($found)],
            $found->manifest,
            new Links($found->references->links),
            $found->traits,
        );
    }

    /** @return array<string, mixed> what an inspection says of a package */
    private static function columns(Inspection $found): array
    {
        return [
            'name' => $found->name,
            'version' => $found->version,
            'bytes' => $found->manifest->bytes(),
            'files' => count($found->manifest->files()),
            'wrapper' => $found->wrapper,
            'start_page' => $found->startPage(),
            'type' => $found->kind?->type?->id,
            'type_evidence' => $found->kind->evidence ?? [],
            'type_choices' => array_map(static fn (PackageType $type): string => $type->id, $found->kind->equal ?? []),
            'stops' => $found->stops(),
            'findings' => array_map(
                static fn (PackageFinding $finding): array => $finding->toArray(),
                $found->findings,
            ),
        ];
    }
}
