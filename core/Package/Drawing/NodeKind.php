<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Drawing;

enum NodeKind: string
{
    case File = 'file';

    /** All files below a directory, to be opened. */
    case Directory = 'directory';

    /** Files of a directory, or directories in it, for which there is no room. */
    case Others = 'others';

    /** Where references lead that lead nowhere. */
    case Missing = 'missing';
}
