<?php

declare(strict_types=1);

namespace App\Models;

/** The state of a deployment. */
enum DeploymentState: string
{
    /** The server is being looked at for the plan. */
    case Drafting = 'drafting';

    /** No plan came of it; its trouble says why. */
    case NotPlanned = 'not_planned';

    case Cancelled = 'cancelled';

    /** A plan that waits for a person. */
    case Planned = 'planned';

    case Queued = 'queued';

    /** Another run is at work in the same place. */
    case Waiting = 'waiting';

    case Running = 'running';

    case Proven = 'proven';

    /** Ended before anything was touched. */
    case Refused = 'refused';

    case PutBack = 'put_back';

    /** Put back, and the server does not show all of it as it was. */
    case PutBackUnproven = 'put_back_unproven';

    /** Broken off, and neither carried out nor put back yet. */
    case Unfinished = 'unfinished';

    /** Those in which something is or will be done on the server without anybody asking again. */
    public const GOING = [self::Queued, self::Waiting, self::Running, self::Unfinished];

    /** Those that still need what they were planned from. */
    public const OPEN = [self::Drafting, self::Planned, ...self::GOING];

    public function isGoing(): bool
    {
        return in_array($this, self::GOING, true);
    }

    /** Whether nothing more becomes of it. */
    public function isOver(): bool
    {
        return ! in_array($this, self::OPEN, true);
    }

    /** Whether it was begun and did not come to its proof. */
    public function isBroken(): bool
    {
        return in_array($this, [self::PutBack, self::PutBackUnproven, self::Unfinished], true);
    }

    /** How it stands, in a word or two. */
    public function label(): string
    {
        return match ($this) {
            self::Drafting => 'being planned',
            self::NotPlanned => 'no plan',
            self::Cancelled => 'cancelled',
            self::Planned => 'a plan, not started',
            self::Queued, self::Running => 'running',
            self::Waiting => 'waits',
            self::Proven => 'live and proven',
            self::Refused => 'refused, nothing touched',
            self::PutBack => 'failed, put back',
            self::PutBackUnproven => 'put back, not proven',
            self::Unfinished => 'not yet put back',
        };
    }

    /** The style its label is shown in. */
    public function tone(): string
    {
        return match ($this) {
            self::Proven => 'proven',
            self::NotPlanned, self::Refused => 'soon',
            self::PutBack, self::PutBackUnproven, self::Unfinished => 'now',
            self::Drafting, self::Queued, self::Running, self::Waiting => 'later',
            self::Cancelled, self::Planned => 'plain',
        };
    }
}
