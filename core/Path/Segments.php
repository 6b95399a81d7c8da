<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/**
 * The names between the slashes; what both kinds of path are made of.
 *
 * @internal
 */
final class Segments
{
    private const MAX_BYTES = 255;

    /**
     * Empty names and "." are dropped; ".." is refused, never resolved: a path that needs it was not meant for us.
     *
     * @return list<string>|PathFault
     */
    public static function parse(string $path): array|PathFault
    {
        if (! mb_check_encoding($path, 'UTF-8')) {
            return PathFault::Encoding;
        }
        if (preg_match('/[\x00-\x1f\x7f]/', $path) === 1) {
            return PathFault::Control;
        }
        $segments = [];
        foreach (explode('/', $path) as $segment) {
            if ($segment === '' || $segment === '.') {
                continue;
            }
            if ($segment === '..') {
                return PathFault::Leaves;
            }
            if (strlen($segment) > self::MAX_BYTES && strlen(WireName::toWire($segment)) > self::MAX_BYTES) {
                return PathFault::TooLong;
            }
            $segments[] = $segment;
        }

        return $segments;
    }

    /**
     * @param  list<string>  $outer
     * @param  list<string>  $inner
     */
    public static function startWith(array $inner, array $outer): bool
    {
        return array_slice($inner, 0, count($outer)) === $outer;
    }
}
