<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Failure\Problem;
use Cellarium\Core\Storage\HeldLock;
use Cellarium\Core\Storage\Locks;

/** One change to the FTP users of an account at a time, over all processes. */
final class FtpUserLock
{
    private const PATIENCE_SECONDS = 45;

    /**
     * A lock on a file and not on a clock: it goes with the process that holds it, whatever time it is.
     *
     * @throws Problem
     */
    public static function acquire(Locks $locks, int $account): HeldLock
    {
        $until = hrtime(true) + self::PATIENCE_SECONDS * 1_000_000_000;
        while (($lock = $locks->acquire("ftp-users-$account")) === null) {
            hrtime(true) < $until
                || throw new Problem(
                    'Another change to the FTP users of this account is going on. Try again in a moment.',
                );
            usleep(20_000);
        }

        return $lock;
    }
}
