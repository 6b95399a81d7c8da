<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\PackageIntake;
use Cellarium\Core\Package\PackageRefused;
use Cellarium\Core\Storage\StoreFailure;

/** Takes packages in; the same bytes are the same package. */
final readonly class Packages
{
    public function __construct(private PackageIntake $intake)
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
        $known = Package::where('sha256', $sha256)->first();
        if ($known !== null) {
            return $known;
        }
        try {
            $found = $this->intake->take($file, $name);
        } catch (PackageRefused $refused) {
            Record::write(RecordKind::PackageRefused, "$name was not uploaded: {$refused->getMessage()}");
            throw $refused;
        }
        $package = Package::add([
            'name' => $found->name,
            'version' => $found->version,
            'file_name' => $name,
            'sha256' => $sha256,
            'packed_bytes' => filesize($file),
            'bytes' => $found->manifest->bytes(),
            'files' => count($found->manifest->files()),
            'wrapper' => $found->wrapper,
            'start_page' => $found->startPage(),
            'stops' => $found->stops(),
            'findings' => array_map(
                static fn (PackageFinding $finding): array => $finding->toArray(),
                $found->findings,
            ),
        ], $found->manifest);
        Record::write(
            RecordKind::PackageAdded,
            "{$package->title()} uploaded: $package->files files",
            facts: ['sha256' => $sha256],
        );

        return $package;
    }
}
