<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Manifest\ManifestEntry;
use RuntimeException;

final class PlanImpossible extends RuntimeException
{
    private function __construct(public readonly string $path, string $sentence)
    {
        parent::__construct($sentence);
    }

    public static function becauseOfKinds(ManifestEntry $wanted, ManifestEntry $present): self
    {
        return new self(
            $wanted->path->toString(),
            "{$wanted->path} is a {$wanted->kind->value} in the package "
                ."and a {$present->kind->value} on the server. Rename one of the two.",
        );
    }

    public static function becauseUnknown(ManifestEntry $wanted): self
    {
        return new self(
            $wanted->path->toString(),
            "The contents that {$wanted->path} should have are not known. Make the plan again.",
        );
    }
}
