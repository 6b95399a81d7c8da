<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Path\RemotePath;

/** A login through which a file is looked for that was put there through another one. */
final readonly class OtherLogin
{
    /**
     * @param  int  $key  whatever the caller knows it by
     * @param  string  $host  that it is at: once it is silent, no further login of it is waited for
     * @param  list<RemotePath>  $candidates  directories that the file may be in, the likeliest first
     */
    public function __construct(
        public int $key,
        public string $host,
        public RemoteDirectory $remote,
        public array $candidates,
    ) {
    }
}
