<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** The files of one login somewhere, whatever carries them. Use by one process at a time. */
interface RemoteDirectory extends RemoteReader, RemoteWriter
{
}
