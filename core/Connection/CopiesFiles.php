<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/** Has the server copy its own files, where it can. */
interface CopiesFiles
{
    /**
     * Copies one file; the directory it goes to must exist. What the copy holds is for size() or a listing to say.
     *
     * @return bool false where this server does not copy; the file is then as it was, or absent
     *
     * @throws RemoteFailure
     */
    public function copy(RemotePath $from, RemotePath $to): bool;
}
