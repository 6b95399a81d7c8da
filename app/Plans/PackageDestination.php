<?php

declare(strict_types=1);

namespace App\Plans;

use Cellarium\Core\Path\RemotePath;

/** The destination of a package. */
final readonly class PackageDestination
{
    /**
     * @param  RemotePath|null  $place  null for the directory visitors come in at
     * @param  list<string>  $replaced  files of the version before that are as it brought them, as paths of the run
     */
    public function __construct(public ?RemotePath $place, public array $replaced = [])
    {
    }
}
