<?php

declare(strict_types=1);

namespace App\Errands;

enum ErrandState: string
{
    case Waiting = 'waiting';
    case Running = 'running';
    case Done = 'done';
    case Failed = 'failed';

    public function hasEnded(): bool
    {
        return $this === self::Done || $this === self::Failed;
    }
}
