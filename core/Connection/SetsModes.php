<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/** A server that can set modes; where one cannot, modes stay as the server gives them. */
interface SetsModes
{
    /**
     * @param  int  $mode  twelve bits, 0644 say
     *
     * @throws RemoteFailure
     */
    public function setMode(RemotePath $path, int $mode): void;
}
