<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\SetsModes;
use Cellarium\Core\Path\RemotePath;

/** The same on a server that sets modes; setting one is an operation like any other. */
final class FaultyModesDirectory extends FaultyDirectory implements SetsModes
{
    /**
     * @param  \Closure(int): ?\Throwable  $before
     * @param  \Closure(int): ?\Throwable  $after
     */
    public function __construct(private readonly LocalRemoteDirectory $local, \Closure $before, \Closure $after)
    {
        parent::__construct($local, $before, $after);
    }

    public function setMode(RemotePath $path, int $mode): void
    {
        $this->do(fn () => $this->local->setMode($path, $mode));
    }
}
