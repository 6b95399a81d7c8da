<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

/** The smallest change of a mode that lets a web server in. */
final readonly class ModeMend
{
    /**
     * @param  string  $path  below the root of the run
     * @param  int  $mode  twelve bits
     */
    public function __construct(public string $path, public int $mode)
    {
    }
}
