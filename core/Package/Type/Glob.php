<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Path\Wildcards;

/**
 * A pattern of paths: "*" is any part of a name, "**" any number of directories, "?" one letter; what ends in a slash
 * is a directory with all below it.
 */
final readonly class Glob
{
    private Wildcards $wildcards;

    public function __construct(public string $pattern)
    {
        $this->wildcards = new Wildcards($pattern);
    }

    public function matches(string $path): bool
    {
        return $this->wildcards->matches($path);
    }

    /**
     * @param  list<self>  $globs
     */
    public static function any(array $globs, string $path): bool
    {
        foreach ($globs as $glob) {
            if ($glob->matches($path)) {
                return true;
            }
        }

        return false;
    }
}
