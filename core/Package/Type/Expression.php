<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/** Regular expressions that somebody has written into a package type: one that gives up is no answer, and is told. */
final class Expression
{
    /**
     * @param  array<int|string, string>|null  $match  what was found, and its groups
     *
     * @param-out array<int|string, string> $match
     *
     * @throws TypeRefused where it takes more steps than one may
     */
    public static function finds(string $expression, string $text, ?array &$match = null): bool
    {
        $found = @preg_match($expression, $text, $match);
        if ($found === false) {
            $why = preg_last_error_msg();
            throw TypeRefused::because('', "$expression takes too many steps ($why); make it simpler");
        }

        return $found === 1;
    }
}
