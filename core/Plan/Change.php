<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** The change of one path by a plan. */
enum Change: string
{
    case Add = 'added';
    case Replace = 'replaced';
    case Same = 'same';
    case Keep = 'kept';
    case SetAside = 'set_aside';

    /** In the package, and left away since somebody has removed it from the server. */
    case LeftAway = 'left_away';

    /** A question that nobody has answered yet; nothing starts while there is one. */
    case Asked = 'asked';

    public function touches(): bool
    {
        return $this === self::Add || $this === self::Replace || $this === self::SetAside;
    }

    public function label(): string
    {
        return match ($this) {
            self::Same => 'the same',
            self::SetAside => 'set aside',
            self::LeftAway => 'left away',
            self::Asked => 'to answer',
            default => $this->value,
        };
    }
}
