<?php

declare(strict_types=1);

namespace App\Watch;

use App\Work\Task;

/** Kinds of what is done about FTP users without anybody asking. */
enum UpkeepKind: string
{
    /** Its time has come, or it could not be closed then. */
    case Close = 'close';
    /** A change of it was broken off, or a person was to make it. */
    case Settle = 'settle';
    /** A proof that was cut off left something on the server. */
    case Tidy = 'tidy';

    /** @return class-string<Task> */
    public function task(): string
    {
        return match ($this) {
            self::Close => CloseDueUser::class,
            self::Settle => SettleUser::class,
            self::Tidy => TidyUser::class,
        };
    }
}
