<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use RuntimeException;

/** A person has called off what was going on. */
final class CalledOff extends RuntimeException
{
    public static function byAPerson(): self
    {
        return new self('It was called off.');
    }
}
