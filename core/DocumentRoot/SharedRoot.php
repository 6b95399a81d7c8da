<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;

/** The place of a directory as another login has it; null where that login does not show it, or could not be asked. */
final readonly class SharedRoot
{
    private function __construct(
        public int $key,
        public ?RemotePath $place,
        public ?RemoteFailure $trouble,
    ) {
    }

    public static function at(int $key, RemotePath $place): self
    {
        return new self($key, $place, null);
    }

    public static function nowhere(int $key): self
    {
        return new self($key, null, null);
    }

    /** Nothing is known of it then: what was known before stays so. */
    public static function notLookedFor(int $key, RemoteFailure $trouble): self
    {
        return new self($key, null, $trouble);
    }
}
