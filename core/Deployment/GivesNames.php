<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\TransferFailed;

/** Has several directories and files change their names with nothing in between. */
interface GivesNames
{
    /**
     * @param  non-empty-list<array{RemotePath, RemotePath}>  $renames  from and to, as the login sees them
     * @return list<string> what was said against each, "" where it is done
     *
     * @throws TransferFailed|ControlFailure after which it is not known which were given
     */
    public function give(array $renames): array;
}
