<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** The implementation for each protocol. */
final class RemoteDirectories
{
    /** @param  (\Closure(int): bool)|null  $carryOn hears the bytes moved so far in a transfer; false breaks it off */
    public static function open(
        Endpoint $endpoint,
        ConnectionSettings $settings = new ConnectionSettings(),
        ?\Closure $carryOn = null,
    ): RemoteDirectory&SetsModes&TriesPaths {
        return $endpoint->protocol === Protocol::Sftp
            ? new SftpRemoteDirectory($endpoint, $settings, $carryOn)
            : new FtpRemoteDirectory($endpoint, $settings, $carryOn);
    }
}
