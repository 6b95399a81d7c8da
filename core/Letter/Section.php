<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** The subject of a part of a letter; only what is about files is an account of ours. */
enum Section: string
{
    case Files = 'files';
    case Mail = 'mail';
    case Database = 'database';
    case Panel = 'panel';
    case Names = 'names';
    case Old = 'old';

    public function isElsewhere(): bool
    {
        return $this !== self::Files;
    }
}
