<?php

declare(strict_types=1);

namespace App\Models;

/** A fault of what is stored, which stays on Today until it is right again. */
enum AlarmKind: string
{
    /** Database and lists tell of different backups, or of different pasts. */
    case Witnesses = 'witnesses';

    /** So much would be removed at once that a person has to say so. */
    case Sweep = 'sweep';

    /** Lists of single backups, packages or plans that cannot be read. */
    case Unreadable = 'unreadable';

    /** Reading everything back found nothing, where there should be something. */
    case NothingRead = 'nothing_read';

    /** The store has fewer contents than it had, and no removal explains that. */
    case CountFell = 'count_fell';

    /** Cellarium's own backup was not made. */
    case SelfBackup = 'self_backup';

    /** Cellarium's own backup could not be brought back into an empty database. */
    case SelfRehearsal = 'self_rehearsal';

    /** The clock of this machine leapt, so that nothing is removed for its age. */
    case Clock = 'clock';

    public function title(): string
    {
        return match ($this) {
            self::Witnesses => 'Database and lists do not agree',
            self::Sweep => 'Much to remove at once',
            self::Unreadable => 'Lists that cannot be read',
            self::NothingRead => 'The store seems to be empty',
            self::CountFell => 'The store has lost contents',
            self::SelfBackup => 'Cellarium itself was not saved',
            self::Clock => 'The clock of this machine leapt',
            self::SelfRehearsal => 'Cellarium’s own backup cannot be restored',
        };
    }
}
