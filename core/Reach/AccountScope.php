<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RemotePath;

/** An account as far as reach goes: its sites, its upload folders that hold scripts, its FTP users. */
final readonly class AccountScope
{
    /**
     * @param  list<SitePlaces>  $sites
     * @param  list<RemotePath>  $scriptFolders  upload folders in which scripts were seen
     * @param  list<ScopedLogin>  $logins
     */
    public function __construct(
        public int|string $key,
        public array $sites,
        public array $scriptFolders,
        public array $logins,
    ) {
    }
}
