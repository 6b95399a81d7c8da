<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Manifest\ManifestEntry;

/** A file or directory whose rights are not as they should be. */
final readonly class WrongRights
{
    /** @param  int  $wanted  twelve bits: the smallest change from what it has */
    public function __construct(public ManifestEntry $entry, public RightsFault $fault, public int $wanted)
    {
    }
}
