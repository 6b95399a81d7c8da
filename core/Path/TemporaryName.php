<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/** Names of files on their way in: beside the file they become, hidden, and never mistaken for a site's own. */
final class TemporaryName
{
    public static function forRun(string $run, int $index): string
    {
        return ".cellarium-$run-$index.part";
    }

    /** Of a whole directory beside a document root; what it holds is told by a word of a to z. */
    public static function directory(string $run, string $what): string
    {
        return ".cellarium-$run-$what";
    }

    /** @return array{string, string}|null the run that such a directory belongs to, and what it holds */
    public static function ofDirectory(string $name): ?array
    {
        return preg_match('/\A\.cellarium-([0-9a-z]+)-([a-z]+)\z/', $name, $match) === 1
            ? [$match[1], $match[2]]
            : null;
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
