<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use RuntimeException;

/** A person has cancelled what was going on. */
final class Cancelled extends RuntimeException
{
    public static function byAPerson(): self
    {
        return new self('It was cancelled.');
    }
}
