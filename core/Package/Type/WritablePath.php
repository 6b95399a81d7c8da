<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/** What the web server has to be able to write to. */
final readonly class WritablePath
{
    /** @param  int  $mode  twelve bits */
    public function __construct(public string $path, public int $mode)
    {
    }
}
