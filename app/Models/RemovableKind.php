<?php

declare(strict_types=1);

namespace App\Models;

/** The kinds that can be removed from Cellarium, by the word in their address. */
enum RemovableKind: string
{
    case Client = 'clients';

    case Account = 'accounts';

    case Site = 'sites';

    /** What one of them is called. */
    public function noun(): string
    {
        return match ($this) {
            self::Client => 'client',
            self::Account => 'account',
            self::Site => 'site',
        };
    }
}
