<?php

declare(strict_types=1);

namespace App\Packages;

/** The order of the library. */
enum LibraryOrder: string
{
    case Newest = 'newest';
    case Name = 'name';
    case Size = 'size';
    case Versions = 'versions';

    public function label(): string
    {
        return match ($this) {
            self::Newest => 'newest first',
            self::Name => 'by name',
            self::Size => 'largest first',
            self::Versions => 'most versions first',
        };
    }

    /** @return array{string, string} column and direction */
    public function by(): array
    {
        return match ($this) {
            self::Newest => ['latest', 'desc'],
            self::Name => ['name', 'asc'],
            self::Size => ['bytes', 'desc'],
            self::Versions => ['versions', 'desc'],
        };
    }
}
