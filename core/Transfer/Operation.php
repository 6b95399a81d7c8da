<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

enum Operation: string
{
    case List = 'list';
    case Fetch = 'fetch';
    case Keep = 'keep';
    case Hash = 'hash';
    case LookAgain = 'look_again';
    case Send = 'send';
    case Rename = 'rename';
    case RenameTogether = 'rename_together';
    case Copy = 'copy';
    case Discard = 'discard';
    case MakeDirectory = 'make_directory';
    case RemoveDirectory = 'remove_directory';
    case SetMode = 'set_mode';
}
