<?php

declare(strict_types=1);

namespace Cellarium\Core\Intake;

use RuntimeException;

final class ListRefused extends RuntimeException
{
    public static function because(string $sentence): self
    {
        return new self($sentence);
    }
}
