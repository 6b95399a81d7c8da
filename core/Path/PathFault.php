<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

enum PathFault: string
{
    case NotAbsolute = 'not_absolute';
    case Absolute = 'absolute';
    case Leaves = 'leaves';
    case Encoding = 'encoding';
    case Control = 'control';
    case TooLong = 'too_long';
    case Empty = 'empty';

    public function sentence(): string
    {
        return match ($this) {
            self::NotAbsolute => 'a directory on the server starts with a slash',
            self::Absolute => 'a name inside a package does not start at a root or drive',
            self::Leaves => 'it leads out of its directory',
            self::Encoding => 'it is not valid UTF-8',
            self::Control => 'it holds a control character',
            self::TooLong => 'a name in it is longer than 255 bytes',
            self::Empty => 'it is empty',
        };
    }
}
