<?php

declare(strict_types=1);

namespace App\Models;

/** The state of a change to many FTP users. */
enum BulkChangeState: string
{
    case Draft = 'draft';

    case Going = 'going';

    case Done = 'done';
}
