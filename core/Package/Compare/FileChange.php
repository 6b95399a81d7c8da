<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Compare;

/** The change of a file from one version of a package to another one. */
enum FileChange: string
{
    case Added = 'added';
    case Changed = 'changed';
    case Renamed = 'renamed';
    case Gone = 'gone';
}
