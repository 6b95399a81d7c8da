<?php

declare(strict_types=1);

namespace Cellarium\Core\Manifest;

enum EntryKind: string
{
    case File = 'file';
    case Directory = 'directory';
    case Link = 'link';
    case Other = 'other';
}
