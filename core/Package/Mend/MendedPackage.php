<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Mend;

use Cellarium\Core\Manifest\Manifest;

/** A package as it is after mending; texts that changed are in the store. */
final readonly class MendedPackage
{
    /**
     * @param  list<MendChange>  $changes
     * @param  list<Mend>  $notDone  what cannot be said in its place without changing more than that
     */
    public function __construct(
        public Manifest $manifest,
        public array $changes,
        public array $notDone,
    ) {
    }
}
