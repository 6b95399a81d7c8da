<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use RuntimeException;

/** A description of a package type that is none. */
final class TypeRefused extends RuntimeException
{
    public static function because(string $where, string $what): self
    {
        return new self(($where === '' ? '' : "$where: ").rtrim($what, '.').'. Nothing was saved.');
    }
}
