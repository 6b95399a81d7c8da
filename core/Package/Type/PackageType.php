<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Path\PathPattern;

/** The rules for a kind of package. */
final readonly class PackageType
{
    /** The one type that rules of the inspection know by its id: a site that needs no scripts. */
    public const BUILT_SITE = 'built-site';

    /**
     * @param  string  $id  letters, digits and "-"
     * @param  string  $label  for people
     * @param  list<Marker>  $markers  how it is recognised
     * @param  int  $threshold  weight from which it is one
     * @param  ReadFrom|null  $version  where its version stands
     * @param  ReadFrom|null  $name  where its name stands
     * @param  string|null  $system  the type of the system it belongs to, for themes and extensions
     * @param  string|null  $directory  inside the document root or the system; "{name}" is the package's own name
     * @param  bool  $isUpdate  whether it replaces the files of an installed system and keeps the rest
     * @param  list<PathPattern>  $keeps  what stays on the server whatever the package holds
     * @param  list<PathPattern>  $never  what never leaves here
     * @param  list<WritablePath>  $writable
     * @param  list<string>  $proves  addresses that show afterwards that it works
     * @param  SetupPage|null  $setup  that answers everybody until it is done
     */
    public function __construct(
        public string $id,
        public string $label,
        public array $markers,
        public int $threshold,
        public ?ReadFrom $version,
        public ?ReadFrom $name,
        public Place $place,
        public ?string $system,
        public ?string $directory,
        public bool $isUpdate,
        public array $keeps,
        public array $never,
        public array $writable,
        public array $proves,
        public Needs $needs,
        public ?SetupPage $setup = null,
    ) {
    }
}
