<?php

declare(strict_types=1);

namespace App\Models;

enum ErrandState: string
{
    case Waiting = 'waiting';
    case Running = 'running';
    case Done = 'done';
    case Failed = 'failed';
    case Cancelled = 'cancelled';

    public function hasEnded(): bool
    {
        return $this !== self::Waiting && $this !== self::Running;
    }
}
