<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/** The type of a package, and the signs it was recognised by. */
final readonly class Recognition
{
    /**
     * @param  PackageType|null  $type  null where none fits, or where several fit equally well
     * @param  list<string>  $evidence  what speaks for it, "quaylight.php names its version"
     * @param  list<PackageType>  $equal  those that fit equally well: somebody has to say which
     * @param  string|null  $version  from the place the type names
     * @param  string|null  $name  the same
     */
    public function __construct(
        public ?PackageType $type,
        public array $evidence,
        public array $equal,
        public ?string $version,
        public ?string $name,
    ) {
    }
}
