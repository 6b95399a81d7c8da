<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** What becomes of one path. */
enum Change: string
{
    case Add = 'added';
    case Replace = 'replaced';
    case Same = 'same';
    case Keep = 'kept';
    case SetAside = 'set_aside';

    public function touches(): bool
    {
        return $this === self::Add || $this === self::Replace || $this === self::SetAside;
    }

    public function label(): string
    {
        return match ($this) {
            self::Same => 'the same',
            self::SetAside => 'set aside',
            default => $this->value,
        };
    }
}
