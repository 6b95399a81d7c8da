<?php

declare(strict_types=1);

namespace App\Models;

/** How far a change to many FTP users has come. */
enum BulkChangeState: string
{
    case Draft = 'draft';

    case Going = 'going';

    case Done = 'done';
}
