<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

use Cellarium\Core\Path\RelativePath;

/**
 * A path that the web server has to be able to write to: a file of the package, or a directory, made where it is
 * missing.
 */
final readonly class WritablePath
{
    /** @param  int  $mode  twelve bits */
    public function __construct(public RelativePath $path, public int $mode)
    {
    }
}
