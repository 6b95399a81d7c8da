<?php

declare(strict_types=1);

namespace App\Models;

/** The state of a change by hand. */
enum ChangeState: string
{
    /** Whose contents may still be asked for. */
    public const OPEN = [self::Counting, self::Planned, self::Waiting, self::Running, self::Unclear];

    /** What lies in chosen folders is looked at, to say how much it is about. */
    case Counting = 'counting';

    /** It is said what would be done; a person starts it. */
    case Planned = 'planned';

    case Waiting = 'waiting';

    case Running = 'running';

    /** All of it is done, and the server confirmed it. */
    case Done = 'done';

    /** Nothing was touched. */
    case Refused = 'refused';

    /** Some steps are done and confirmed, the others were not begun or left everything as it was. */
    case Partly = 'partly';

    /** What became of the last step could not be found out. */
    case Unclear = 'unclear';

    public function hasEnded(): bool
    {
        return in_array($this, [self::Done, self::Refused, self::Partly, self::Unclear], true);
    }

    public function isGoing(): bool
    {
        return in_array($this, [self::Counting, self::Waiting, self::Running], true);
    }

    public function label(): string
    {
        return match ($this) {
            self::Counting => 'counting',
            self::Planned => 'not started',
            self::Waiting => 'waiting',
            self::Running => 'going on',
            self::Done => 'done',
            self::Refused => 'not done',
            self::Partly => 'partly done',
            self::Unclear => 'unclear',
        };
    }
}
