<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/**
 * A server that computes hashes of what would else be read back whole: HASH (draft-bryan-ftpext-hash) and its
 * forerunners.
 */
interface ComputesHashes
{
    /**
     * @return ServerHash|null null where the server offers none, or not for this file
     *
     * @throws RemoteFailure of the connection only
     */
    public function hash(RemotePath $file): ?ServerHash;
}
