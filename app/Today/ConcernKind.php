<?php

declare(strict_types=1);

namespace App\Today;

/** Kinds of concerns, by what would mend them. */
enum ConcernKind: string
{
    case NoBackup = 'no_backup';

    case LateBackup = 'late_backup';

    case LateRehearsal = 'late_rehearsal';

    /** A backup could not be brought back where nobody sees it. */
    case Rehearsal = 'rehearsal';

    /** A stored copy has other bytes than it had. */
    case Damaged = 'damaged';

    /** The store as a whole: database and lists do not agree, too much to remove, contents that are gone. */
    case Store = 'store';

    /** Cellarium itself goes nowhere each night. */
    case SelfBackup = 'self_backup';

    case Placeholder = 'placeholder';

    /** A site at a host where visitors were not asked for it. */
    case NotShown = 'not_shown';

    /** An address that answers everybody and should not. */
    case OpenAddress = 'open_address';

    case OpenUser = 'open_user';

    case Connection = 'connection';

    case ByHand = 'by_hand';

    case FoundUser = 'found';

    case WrongReach = 'reach';

    case Unknown = 'unknown';

    case Unfinished = 'unfinished';

    case Unproven = 'unproven';

    case Question = 'question';

    /** Somebody of a client asked for something. */
    case Asked = 'asked';

    /** What a group of them is called. */
    public function title(): string
    {
        return match ($this) {
            self::NoBackup => 'No backup yet',
            self::LateBackup => 'Backup overdue',
            self::LateRehearsal => 'Rehearsal overdue',
            self::Rehearsal => 'Backups that could not be rehearsed',
            self::Damaged => 'Damaged in the store',
            self::Store => 'The store needs a look',
            self::SelfBackup => 'Cellarium itself is not saved',
            self::Placeholder => 'Still the host’s placeholder page',
            self::NotShown => 'Not shown to visitors yet',
            self::OpenAddress => 'Open to everybody',
            self::OpenUser => 'FTP users still open',
            self::Connection => 'Hosts that do not connect',
            self::ByHand => 'To be done at the provider',
            self::FoundUser => 'FTP users that were not made here',
            self::WrongReach => 'FTP users that reach other than meant',
            self::Unknown => 'Not known what became of them',
            self::Unfinished => 'Not yet put back',
            self::Unproven => 'Put back, not proven',
            self::Asked => 'Clients ask',
            self::Question => 'Backups that wait for an answer',
        };
    }
}
