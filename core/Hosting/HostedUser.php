<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

/** An FTP user as its host tells of it. */
final readonly class HostedUser
{
    /**
     * @param  string  $directory  as the account sees it
     * @param  int|null  $spaceLimit  bytes
     * @param  string|null  $lastUsed  when it last signed in, by the host's clock and in its words; null for never
     *     or not told
     */
    public function __construct(
        public string $login,
        public string $directory,
        public ?int $spaceLimit,
        public bool $readOnly,
        public bool $open,
        public ?string $lastUsed,
    ) {
    }
}
