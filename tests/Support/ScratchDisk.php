<?php

declare(strict_types=1);

namespace Tests\Support;

/** The directory for what tests write: in memory, where there is room, so that nothing waits for a disk. */
final class ScratchDisk
{
    private const ROOM = 2_000_000_000;

    public static function path(): string
    {
        $room = is_writable('/dev/shm') ? disk_free_space('/dev/shm') : false;

        return $room !== false && $room > self::ROOM ? '/dev/shm' : sys_get_temp_dir();
    }
}
