<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** One form of listing, read line by line. */
interface ListingLines
{
    /**
     * @param  string  $line  without its end, not empty
     * @return RemoteEntry|null null for the directory itself, the one above, and what is no entry
     *
     * @throws RemoteFailure NotUnderstood
     */
    public function entry(string $line): ?RemoteEntry;
}
