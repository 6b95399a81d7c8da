<?php

declare(strict_types=1);

namespace App\Work;

use Cellarium\Core\Work\Claim;

/**
 * One kind of work that outlives the request that ordered it, about one row; a worker carries it out.
 *
 * It is kept under its class's own name, see TaskName, which therefore stays for years and is used once. A worker may
 * be ended at any moment: a RecoversOrphans says what becomes of a row then, and a RecoversForgotten of one that waits.
 */
interface Task
{
    /** @return Claim|null null where what it is about is gone */
    public static function claim(int $row): ?Claim;

    /**
     * Called once for each order, by one worker; what it is about may be gone or done by now.
     *
     * @return int|null seconds after which it is to be tried again, where something else is in its way; null once it
     *     has ended, however it ended
     */
    public function carryOut(int $row): ?int;
}
