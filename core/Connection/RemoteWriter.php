<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

interface RemoteWriter
{
    /**
     * Stores a stream under a name, over what was there; its directory must exist. The server has then said that it
     * took all; what it holds is for size() or a listing to say.
     *
     * @param  resource  $source  read from where it stands to its end
     * @param  int  $size  bytes that the source will give
     *
     * @throws RemoteFailure the file then holds an unknown part
     */
    public function write(RemotePath $file, $source, int $size): void;

    /**
     * Gives a file another name, replacing a file of that name.
     *
     * @throws RemoteFailure
     */
    public function rename(RemotePath $from, RemotePath $to): void;

    /** @throws RemoteFailure NotFound when it is not there */
    public function remove(RemotePath $file): void;

    /**
     * Makes one directory; its parent must exist. One that is there already is as good.
     *
     * @throws RemoteFailure
     */
    public function makeDirectory(RemotePath $directory): void;

    /** @throws RemoteFailure Forbidden when it is not empty */
    public function removeDirectory(RemotePath $directory): void;
}
