<?php

declare(strict_types=1);

namespace App\Models;

/** The kind of a change to many FTP users at once. */
enum BulkKind: string
{
    case Close = 'close';

    case Renew = 'renew';

    /** Another closing time. */
    case Move = 'move';

    /** What a button says before "these 12". */
    public function verb(): string
    {
        return match ($this) {
            self::Close => 'Close',
            self::Renew => 'Renew',
            self::Move => 'Move',
        };
    }
}
