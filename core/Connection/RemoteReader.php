<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

interface RemoteReader
{
    /**
     * What a directory holds, without "." and "..", in the server's order. An empty list means it is empty.
     *
     * @return list<RemoteEntry>
     *
     * @throws RemoteFailure NotFound, Forbidden, NotUnderstood, or of the connection
     */
    public function list(RemotePath $directory): array;

    /**
     * One entry; null only when the server showed that it is absent.
     *
     * @throws RemoteFailure
     */
    public function stat(RemotePath $path): ?RemoteEntry;

    /**
     * How many bytes a file holds, in as few questions as that takes.
     *
     * @return int|null null where the server cannot say, or has no such file
     *
     * @throws RemoteFailure of the connection
     */
    public function size(RemotePath $file): ?int;

    /**
     * Writes a file's bytes to a stream.
     *
     * @param  resource  $sink
     * @param  int|null  $most  bytes; a server that sends more is not listened to any longer. Null for whatever comes
     * @return int bytes written
     *
     * @throws RemoteFailure Incomplete beyond $most; the sink then holds an unknown part
     */
    public function read(RemotePath $file, $sink, ?int $most = null): int;
}
