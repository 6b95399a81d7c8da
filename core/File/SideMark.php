<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** The relation of a line of a text to the line it was made from. */
enum SideMark: string
{
    case Same = 'same';
    case Changed = 'changed';
    case Added = 'added';
    case Removed = 'removed';

    /** There is no line here, since another text has more. */
    case Nothing = 'nothing';
}
