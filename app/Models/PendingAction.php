<?php

declare(strict_types=1);

namespace App\Models;

/** The action wanted of an FTP user. */
enum PendingAction: string
{
    case Create = 'create';

    case Renew = 'renew';

    case Change = 'change';

    case Reopen = 'reopen';

    case Close = 'close';

    case Remove = 'remove';

    /** Whether it takes away what the user can do. */
    public function ends(): bool
    {
        return $this === self::Close || $this === self::Remove;
    }

    /** Whether it gives the user another password. */
    public function setsPassword(): bool
    {
        return $this === self::Renew || $this === self::Reopen;
    }
}
