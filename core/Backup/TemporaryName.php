<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

/** Names of files on their way in: beside the file they become, hidden, and never mistaken for a site's own. */
final class TemporaryName
{
    public static function of(string $run, int $index): string
    {
        return ".cellarium-$run-$index.part";
    }

    public static function isOne(string $name): bool
    {
        return preg_match('/\A\.cellarium-[0-9a-z]+-\d+\.part\z/', $name) === 1;
    }
}
