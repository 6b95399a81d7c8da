<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\TransferFailed;

/** Brings a whole tree to a server, beside where it will be. */
interface LaysTree
{
    /**
     * What the server then lists is compared by whoever asked for it.
     *
     * @param  RemotePath  $root  the document root, which holds some of it
     * @param  RemotePath  $laid  exists; may hold a part of it already
     *
     * @throws TransferFailed|StoreFailure
     */
    public function lay(TreeBeside $tree, RemotePath $root, RemotePath $laid): void;
}
