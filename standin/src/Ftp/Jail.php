<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ftp;

/**
 * A directory of this machine, seen as "/" by a login, that no path, link or encoding trick leaves.
 *
 * Paths are bytes: only valid UTF-8 without control characters is a name, so nothing is decoded twice. Dots are
 * resolved on the text before the disk is asked, and what the disk then names must still lie inside.
 */
final readonly class Jail
{
    public string $root;

    public function __construct(string $root)
    {
        $real = realpath($root);
        $this->root = $real === false ? $root : $real;
    }

    /** The path from "/" that a command means, seen from the working directory; null when it is no path. */
    public function virtual(string $workingDirectory, string $path): ?string
    {
        if (! mb_check_encoding($path, 'UTF-8') || preg_match('/[\x00-\x1f\x7f]/', $path) === 1) {
            return null;
        }
        $segments = [];
        foreach (explode('/', str_starts_with($path, '/') ? $path : "$workingDirectory/$path") as $segment) {
            if (strlen($segment) > 255) {
                return null;
            }
            if ($segment === '..') {
                array_pop($segments);
            } elseif ($segment !== '' && $segment !== '.') {
                $segments[] = $segment;
            }
        }

        return '/'.implode('/', $segments);
    }

    /** Where a virtual path lies on this machine; null when a link on the way leads out of the jail. */
    public function real(string $virtual): ?string
    {
        $path = $this->root.($virtual === '/' ? '' : $virtual);
        $known = $path;
        while (! file_exists($known) && ! is_link($known) && strlen($known) > strlen($this->root)) {
            $known = dirname($known);
        }
        $real = realpath($known);

        return $real !== false && ($real === $this->root || str_starts_with($real, $this->root.'/')) ? $path : null;
    }
}
