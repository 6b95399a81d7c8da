<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

/** The kinds of notes in a journal, in the order a run makes them. */
enum JournalMark: string
{
    case BackedUp = 'backed_up';
    case Planned = 'planned';
    case DirectoryMade = 'directory_made';
    case Sent = 'sent';
    case Renaming = 'renaming';
    case Renamed = 'renamed';
    case SetAside = 'set_aside';
    case Replaced = 'replaced';
    case Proven = 'proven';
    case PuttingBack = 'putting_back';
    case PutBack = 'put_back';

    /**
     * Whether what follows relies on the note: it is on the disk before that begins. The others only save work when a
     * run is taken up.
     */
    public function isPromise(): bool
    {
        return ! in_array($this, [self::DirectoryMade, self::Sent, self::Renamed, self::SetAside], true);
    }
}
