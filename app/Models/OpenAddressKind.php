<?php

declare(strict_types=1);

namespace App\Models;

/** Why an address should not answer whoever comes. */
enum OpenAddressKind: string
{
    /** The bytes of a file that is not meant for visitors. */
    case File = 'file';

    /** A system that nobody has set up yet: whoever comes first does. */
    case Setup = 'setup';

    public function title(): string
    {
        return match ($this) {
            self::File => 'A file is public',
            self::Setup => 'A setup page answers everybody',
        };
    }
}
