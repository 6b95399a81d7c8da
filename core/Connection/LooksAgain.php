<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/** A connection that can look at a directory by another way than list() goes, for a listing that may not be whole. */
interface LooksAgain
{
    /**
     * Looks over a new connection; what cannot be asked is left out.
     *
     * @param  list<string>  $names  what should be there, to be asked for one by one
     * @return list<string> names that are there by at least one other way
     *
     * @throws RemoteFailure of the connection only
     */
    public function namesOtherwise(RemotePath $directory, array $names): array;
}
