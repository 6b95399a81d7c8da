<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RemotePath;

/** One FTP user as far as its scope goes; times in seconds since 1970. */
final readonly class ScopedLogin
{
    /**
     * @param  int|string  $key  whatever the caller knows it by
     * @param  int|null  $closes  when it closes by itself
     * @param  bool  $ends  whether a time or a job closes it
     * @param  int  $used  when it was last used, or made if it never was
     */
    public function __construct(
        public int|string $key,
        public string $login,
        public RemotePath $directory,
        public bool $proven,
        public ?int $closes,
        public bool $ends,
        public int $used,
    ) {
    }
}
