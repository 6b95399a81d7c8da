<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use DateTimeImmutable;

/** A backup that is there, as far as keeping it goes. */
final readonly class HeldBackup
{
    /**
     * @param  bool  $isWayBack  whether something that may yet be taken back needs it
     * @param  bool  $isOfSmallChange  whether it was taken before a change of single files: it takes no other's place
     */
    public function __construct(
        public int $id,
        public DateTimeImmutable $takenAt,
        public bool $isPinned = false,
        public bool $isWayBack = false,
        public bool $isOfSmallChange = false,
    ) {
    }

    /** @return list<KeptBecause> whatever the numbers say */
    public function protections(): array
    {
        return [
            ...$this->isPinned ? [KeptBecause::Pinned] : [],
            ...$this->isWayBack ? [KeptBecause::WayBack] : [],
        ];
    }
}
