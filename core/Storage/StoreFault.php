<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** Why the store could not do what was asked of it. */
enum StoreFault
{
    /** It answered, and has no such contents. */
    case Missing;

    /** What it has are other bytes than were kept, or not all of them. */
    case Damaged;

    /** No room, or no right to write. */
    case NotWritten;

    /** A file of ours that was to be kept could not be read. */
    case NotRead;

    /** It did not answer, or not in a way that tells anything of the contents. */
    case Unreachable;

    /** The key that the contents are sealed with is not in the key file. */
    case KeyMissing;

    /** What lies there has another mark than this installation, or none. */
    case NotOurs;

    /** Whether it says something of the contents that were asked for, and nothing of others. */
    public function isOfOneFile(): bool
    {
        return $this === self::Missing || $this === self::Damaged;
    }
}
