<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** A fault in the rights of a file or directory. */
enum RightsFault: string
{
    case MustBeWritable = 'must_be_writable';

    case AnyoneWrites = 'anyone_writes';

    case RunsAsOwner = 'runs_as_owner';

    case AnyoneReads = 'anyone_reads';

    public function sentence(): string
    {
        return match ($this) {
            self::MustBeWritable => 'the system installed here has to write it, and may not',
            self::AnyoneWrites => 'everyone with an account on this server may change it',
            self::RunsAsOwner => 'it runs in the name of its owner or group, whoever starts it',
            self::AnyoneReads => 'passwords may stand in it, and everyone with an account on this server may read it',
        };
    }

    /** Whether mending it cannot shut anybody out who should come in. */
    public function isSafelyMended(): bool
    {
        return $this !== self::AnyoneReads;
    }
}
