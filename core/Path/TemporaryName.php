<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/** Names of files on their way in: beside the file they become, hidden, and never mistaken for a site's own. */
final class TemporaryName
{
    public static function of(string $run, int $index): string
    {
        return ".cellarium-$run-$index.part";
    }

    public static function isOne(string $name): bool
    {
        return self::run($name) !== null;
    }

    /** The run that a name belongs to, null for a name that is none of ours. */
    public static function run(string $name): ?string
    {
        return preg_match('/\A\.cellarium-([0-9a-z]+)-\d+\.part\z/', $name, $match) === 1 ? $match[1] : null;
    }
}
