<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Models\FileDraft;
use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\RunFiles;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\UploadPlace;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\InspectedFiles;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\People\Permission;
use Cellarium\Core\Storage\ContentStore;
use Illuminate\Support\Facades\Gate;

/** An edited text by the rules of a package: what is wrong with it now and was not when it was opened. */
final readonly class TextInspection
{
    public function __construct(private PackageIntake $intake, private ContentStore $store, private RunFiles $runs)
    {
    }

    /**
     * Paths are the file's name; none of a file that no visitor gets.
     *
     * @param  string  $bytes  as it would be saved
     * @return list<PackageFinding> what keeps it from being saved first
     */
    public function newIn(FilePlace $place, FileDraft $draft, string $bytes): array
    {
        $before = [];
        foreach ($this->all($place, $draft, $this->store->text((string) $draft->base_sha256)) as $finding) {
            $before[$finding->sameAsBefore()] = true;
        }

        return array_values(array_filter(
            $this->all($place, $draft, $bytes),
            static fn (PackageFinding $one): bool => ! isset($before[$one->sameAsBefore()]),
        ));
    }

    /**
     * @param  string|null  $reason  why it is saved all the same
     *
     * @throws Problem where it must not be saved
     */
    public function mustBeRight(FilePlace $place, FileDraft $draft, string $bytes, ?string $reason): void
    {
        $stop = $this->newIn($place, $draft, $bytes)[0] ?? null;
        if ($stop === null || ! $stop->stops()) {
            return;
        }
        $name = $draft->path()->name();
        if ($reason === null || trim($reason) === '' || ! Gate::allows(Permission::OverruleInspection->value)) {
            throw new Problem(
                "Not saved: $name $stop->message Your text is kept as a draft. A maintainer can save it all the same, "
                    .'with a reason.',
            );
        }
        Record::write(
            RecordKind::InspectionOverruled,
            ($place->served()->domain ?? $place->account->title()).": $name is saved although it $stop->message "
                ."Because: $reason",
            $place->served() ?? $place->account,
        );
    }

    /** @return list<PackageFinding> */
    private function all(FilePlace $place, FileDraft $draft, string $bytes): array
    {
        $site = $place->served();
        $root = $site?->applicationRoot();
        $path = $root?->contains($draft->path()) === true ? $root->toward($draft->path()) : null;
        if ($site === null || $root === null || $path === null) {
            return [];
        }
        $file = new ManifestEntry($path, EntryKind::File, strlen($bytes), sha256: $this->store->put([$bytes])->sha256);
        $known = $this->runs->known($site, $root)->manifest;
        $inspected = InspectedFiles::inspect(
            Manifest::fromEntries([$file]),
            new UploadPlace($known->with([$file]), (string) $site->placeFrom($root)->public),
            $this->intake->inspector(),
        );

        return array_values(array_filter(
            [...$inspected->leftOut, ...$inspected->findings],
            // Where nothing is known of the site, nothing is missing there.
            static fn (PackageFinding $one): bool => $one->path === "$file->path"
                && ($known->files() !== [] || ! $one->code->isOfReference()),
        ));
    }
}
