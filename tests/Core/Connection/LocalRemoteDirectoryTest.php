<?php

declare(strict_types=1);

namespace Tests\Core\Connection;

use Cellarium\Core\Connection\RemoteDirectory;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\RemoteDirectoryContract;
use Tests\Support\Scratch;

final class LocalRemoteDirectoryTest extends RemoteDirectoryContract
{
    use Scratch;

    protected function remote(): RemoteDirectory
    {
        return new LocalRemoteDirectory($this->directory());
    }
}
