<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** New places of files and directories of a site; what lies in a directory goes with it. */
final readonly class Moves
{
    /** @param  array<string, string|null>  $to  new path by old one, below the root of the site; null where it goes */
    public function __construct(private array $to)
    {
    }

    /** @return string|null null where it will not be there */
    public function of(string $path): ?string
    {
        for ($above = $path; $above !== '.' && $above !== ''; $above = dirname($above)) {
            if (array_key_exists($above, $this->to)) {
                $to = $this->to[$above];

                return $to === null ? null : $to.substr($path, strlen($above));
            }
        }

        return $path;
    }
}
