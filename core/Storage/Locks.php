<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** Locks by name: one piece of work at a time on something that has a name, or several names. */
interface Locks
{
    /**
     * @param  string  ...$names  any text; a host's and a path may be among it
     * @return HeldLock|null null when something else holds one of the names; none is held then
     *
     * @throws StoreFailure nothing is held
     */
    public function acquire(string ...$names): ?HeldLock;
}
