<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;

/** Makes a directory with all that leads to it. */
final class DirectoryPath
{
    /**
     * @return bool whether something had to be made
     *
     * @throws RemoteFailure what was made until then stays
     */
    public static function make(RemoteDirectory $remote, RemotePath $directory): bool
    {
        $place = RemotePath::root();
        $made = false;
        foreach ($directory->depth() === 0 ? [] : explode('/', substr($directory->toString(), 1)) as $name) {
            $place = $place->child($name);
            $entry = $made ? null : $remote->stat($place);
            $entry === null || $entry->kind === EntryKind::Directory || throw RemoteFailure::while(
                "making the directory $place",
                FailureReason::Forbidden,
                'something else of this name is there',
            );
            if ($entry === null) {
                $remote->makeDirectory($place);
                $made = true;
            }
        }

        return $made;
    }
}
