<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Package\Type\Marker;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\Place;

/** A package type in the list, in words. */
final readonly class TypeRow
{
    public function __construct(
        public PackageType $type,
        public bool $isOwn,
        public bool $isShipped,
        public int $packages,
    ) {
    }

    /** Whose it is, where it is not as it ships. */
    public function origin(): string
    {
        return self::originOf($this->isOwn, $this->isShipped);
    }

    public static function originOf(bool $isOwn, bool $isShipped): string
    {
        return match (true) {
            $isOwn && $isShipped => 'changed here',
            $isOwn => 'your own',
            $isShipped => 'as it ships',
            default => '',
        };
    }

    public function recognisedBy(): string
    {
        $signs = array_filter($this->type->markers, static fn (Marker $marker): bool => $marker->weight > 0);

        return implode('; ', array_unique(array_map(static fn (Marker $marker): string => $marker->says, $signs)));
    }

    public function goes(): string
    {
        return match ($this->type->place) {
            Place::DocumentRoot => $this->type->isUpdate
                ? 'over the installed system; what is its site’s own stays'
                : 'into the document root',
            Place::AboveDocumentRoot => "above the document root, which is its {$this->type->directory}/",
            Place::Subfolder => 'into a directory of the document root',
            Place::InsideSystem => "into {$this->type->directory} of an installed {$this->type->system}",
        };
    }
}
