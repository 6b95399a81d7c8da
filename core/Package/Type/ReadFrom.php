<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Path\PathPattern;

/** A place in a package that says something of it: its version, its name. */
final readonly class ReadFrom
{
    /** @param  string  $pattern  a regular expression; its first group is what is said */
    public function __construct(public PathPattern $file, public string $pattern)
    {
    }

    public function read(string $text): ?string
    {
        $found = Expression::finds($this->pattern, $text, $match) ? trim($match[1] ?? '') : '';

        return $found === '' || mb_strlen($found) > 80 || ! mb_check_encoding($found, 'UTF-8') ? null : $found;
    }
}
