<?php

declare(strict_types=1);

namespace App\Models;

/** When an FTP user closes. */
enum Closing: string
{
    case AtTime = 'time';

    /** When the deployment that signs in as it has ended. */
    case WithJob = 'job';

    case Never = 'never';
}
