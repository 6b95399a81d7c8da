<?php

declare(strict_types=1);

namespace App\Models;

/** An action by hand on files of an account. */
enum FileAction: string
{
    case NewFolder = 'new_folder';
    case Rename = 'rename';
    case Move = 'move';
    case Copy = 'copy';
    case SetAside = 'set_aside';
    case SetModes = 'set_modes';
    case Save = 'save';
    case Undo = 'undo';

    /** What was done, for a sentence. */
    public function done(): string
    {
        return match ($this) {
            self::NewFolder => 'made',
            self::Rename => 'renamed',
            self::Move => 'moved',
            self::Copy => 'copied',
            self::SetAside => 'set aside',
            self::SetModes => 'given other permissions',
            self::Save => 'saved',
            self::Undo => 'undone',
        };
    }
}
