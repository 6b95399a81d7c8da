<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/** A small file of a server as text. */
final class RemoteText
{
    /**
     * @param  int  $most  bytes; reading breaks off where more arrive, whatever the listing said
     * @return string|null null where the file is larger
     *
     * @throws RemoteFailure
     */
    public static function read(RemoteReader $remote, RemotePath $file, int $most): ?string
    {
        $sink = BoundedSink::open($most);
        try {
            $remote->read($file, $sink);
        } catch (RemoteFailure $failure) {
            // The sink took no more; every other failure is one of the server or of the way there.
            return $failure->reason === FailureReason::LocalFile ? null : throw $failure;
        }
        rewind($sink);

        return (string) stream_get_contents($sink);
    }
}
