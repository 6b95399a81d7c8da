<?php

declare(strict_types=1);

namespace App\Watch;

use Cellarium\Core\Work\Urgency;

/** Kinds of what is done about FTP users without anybody asking. */
enum UpkeepKind: string
{
    /** Its time has come, or it could not be closed then. */
    case Close = 'close';
    /** A change of it was broken off, or a person was to make it. */
    case Settle = 'settle';
    /** A proof that was cut off left something on the server. */
    case Tidy = 'tidy';

    public function urgency(): Urgency
    {
        return $this === self::Close ? Urgency::Closing : Urgency::Ordered;
    }
}
