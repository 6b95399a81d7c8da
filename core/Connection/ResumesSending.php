<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/**
 * A server that lets sending go on behind what a server holds of a file already (REST of RFC 3659, 5; offsets of SFTP).
 */
interface ResumesSending
{
    /**
     * @param  resource  $source  standing where the rest begins
     * @param  int  $from  bytes that the server holds and keeps
     * @param  int  $size  of the whole file
     * @return bool false where the server does not do that; nothing was written then
     *
     * @throws RemoteFailure the file then holds an unknown part
     */
    public function writeFrom(RemotePath $file, $source, int $from, int $size): bool;
}
