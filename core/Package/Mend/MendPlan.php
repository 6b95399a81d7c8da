<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Mend;

use Cellarium\Core\Manifest\Manifest;

/** The changes that mending would make to a package; nothing of it is done yet. */
final readonly class MendPlan
{
    /**
     * @param  array<string, string>  $texts  contents that change, by path before
     * @param  list<MendChange>  $changes
     * @param  list<Mend>  $notDone  what cannot be said in its place without changing more than that
     */
    public function __construct(
        public Manifest $manifest,
        public NewNames $names,
        public array $texts,
        public array $changes,
        public array $notDone,
    ) {
    }
}
