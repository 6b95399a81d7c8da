<?php

declare(strict_types=1);

namespace App\Files;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;

/** Files of a host that are read whole before a byte of them goes on, in little memory however large. */
final class WholeRead
{
    /** What is larger than this lies on the disk and not in memory meanwhile, in bytes. */
    private const IN_MEMORY = 2 << 20;

    /**
     * @return resource that stands at its beginning
     *
     * @throws RemoteFailure Incomplete where it has not the size it was listed with
     */
    public static function of(RemoteDirectory $remote, RemotePath $file, int $size)
    {
        $bytes = fopen('php://temp/maxmemory:'.self::IN_MEMORY, 'w+b');
        assert($bytes !== false);
        $read = $remote->read($file, $bytes, $size);
        if ($read !== $size) {
            throw RemoteFailure::while(
                "reading $file",
                FailureReason::Incomplete,
                "listed with $size bytes, $read came",
            );
        }
        rewind($bytes);

        return $bytes;
    }
}
