<?php

declare(strict_types=1);

namespace Cellarium\Core\Work;

/** The kinds of work that wait for a worker, most urgent first; the value names the queue. */
enum Urgency: string
{
    /** An FTP user is closed: somebody could still sign in. */
    case Closing = 'closing';
    /** A page waits for the answer. */
    case Errand = 'errands';
    /** A person has ordered it and watches. */
    case Ordered = 'default';
    /** A server is looked through, which may take minutes. */
    case Look = 'looks';
    /** Files come over for somebody who downloads them: as long as it takes. */
    case Download = 'downloads';
    /** It was promised, and nobody waits. */
    case Backup = 'backups';
    case Sweep = 'sweep';

    /** 0 for the most urgent. */
    public function rank(): int
    {
        return (int) array_search($this, self::cases(), true);
    }

    /** Whether nobody waits for it: such work leaves most workers to what somebody waits for. */
    public function isByItself(): bool
    {
        return $this === self::Backup || $this === self::Sweep;
    }
}
