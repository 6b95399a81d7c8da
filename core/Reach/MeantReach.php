<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

use Cellarium\Core\Path\RemotePath;

/** The reach that an FTP user is meant to have, against which its proof is held. */
final readonly class MeantReach
{
    /**
     * @param  RemotePath  $directory  where it lands, as the account sees it
     * @param  int|null  $spaceLimit  bytes, null for no limit of its own
     * @param  list<RemotePath>  $elsewhere  directories of the account that it must not get to, those of other
     *     sites say
     */
    public function __construct(
        public string $login,
        public RemotePath $directory,
        public bool $readOnly = false,
        public ?int $spaceLimit = null,
        public array $elsewhere = [],
    ) {
    }
}
