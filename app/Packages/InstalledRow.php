<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;

/** Something that was found installed on a site, and the newest version of it in the library. */
final readonly class InstalledRow
{
    /** @param  Package|null  $newer  null where none is newer than what is installed */
    public function __construct(
        public string $label,
        public string $directory,
        public ?string $name,
        public ?string $version,
        public ?Package $newer,
    ) {
    }
}
