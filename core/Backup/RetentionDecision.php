<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

/** The decision to keep a backup or to let it go, and the reason. */
final readonly class RetentionDecision
{
    /** @param  list<KeptBecause>  $because  it stays; none, and it goes */
    public function __construct(public HeldBackup $backup, public array $because)
    {
    }

    public function isKept(): bool
    {
        return $this->because !== [];
    }
}
