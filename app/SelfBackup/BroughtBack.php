<?php

declare(strict_types=1);

namespace App\SelfBackup;

/** The contents that came back with a backup of Cellarium itself. */
final class BroughtBack
{
    /**
     * @param  string  $appKey  what stored passwords and the record are sealed with
     * @param  string  $identity  of the installation; "" where the backup is older than identities
     * @param  int  $files  lists that were put back
     */
    public function __construct(
        #[\SensitiveParameter] public readonly string $appKey,
        public readonly string $identity,
        public int $files = 0,
    ) {
    }
}
