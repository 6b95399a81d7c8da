<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** The kind of a change to one entry of a directory. */
enum FileChangeKind: string
{
    /** A file gets contents, new or instead of what it held. */
    case Save = 'save';

    case MakeDirectory = 'make_directory';

    /** Of an empty directory. */
    case RemoveDirectory = 'remove_directory';

    /** Another name, or the same in another directory; of a file or of a directory with all below it. */
    case Rename = 'rename';

    /** Of one file. */
    case Copy = 'copy';

    /** A file is held here and taken away there. */
    case SetAside = 'set_aside';

    case SetMode = 'set_mode';
}
