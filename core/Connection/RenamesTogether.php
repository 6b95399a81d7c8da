<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/** Gives several names at once, so that nothing waits for an answer in between. */
interface RenamesTogether
{
    /**
     * All of it goes to the server in one piece, and the server does one after the other: whoever looks meanwhile waits
     * for the server's own work and for no way there and back. One that is refused keeps none of those behind it
     * from being done.
     *
     * @param  non-empty-list<array{RemotePath, RemotePath}>  $renames  of files or directories: from and to
     * @return list<string|null> for each, what the server said against it; null where it is done
     *
     * @throws RemoteFailure of the connection: then it is not known which were done
     */
    public function renameTogether(array $renames): array;
}
