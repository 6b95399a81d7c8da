<?php

declare(strict_types=1);

namespace Kelpie;

/** Who lies where; it lies above the document root, where nobody can fetch it. */
final class Berths
{
    private const BOATS = ['Slipway' => 'Merry Dunlin', 'North wall' => 'Kittiwake', 'Mud berth' => 'Old Whelk'];

    /** @return array<string, string> boats by berth */
    public static function all(): array
    {
        return self::BOATS;
    }
}
