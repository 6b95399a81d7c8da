<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/** The presence of names, each asked for by itself. */
final class NamesOneByOne
{
    /**
     * @param  list<string>  $names
     * @return list<string> none where the directory is gone itself
     *
     * @throws RemoteFailure of the connection, and where it may not be looked at
     */
    public static function ask(RemoteDirectory $remote, RemotePath $directory, array $names): array
    {
        $there = [];
        foreach ($names as $name) {
            try {
                $remote->stat($directory->child($name)) === null || $there[] = $name;
            } catch (RemoteFailure $failure) {
                $failure->reason === FailureReason::NotFound || throw $failure;
            }
        }

        return $there;
    }
}
