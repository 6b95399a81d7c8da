<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\TransferFailed;

/** Brings a whole tree to a server, beside where it will be. */
interface LaysTree
{
    /**
     * Why it cannot be done, in half a sentence; null where it can. Nothing is touched.
     *
     * @throws ControlFailure
     */
    public function barred(): ?string;

    /**
     * Waits for what was begun before this run was broken off and goes on by itself.
     *
     * @throws ControlFailure
     */
    public function settle(): void;

    /**
     * What the server then lists is compared by whoever asked for it.
     *
     * @param  RemotePath  $root  the document root, which holds some of it
     * @param  RemotePath  $laid  exists; may hold a part of it already
     *
     * @throws TransferFailed|StoreFailure|ControlFailure
     */
    public function lay(StagedTree $tree, RemotePath $root, RemotePath $laid): void;
}
