<?php

declare(strict_types=1);

namespace Cellarium\Core\Timeline;

/** Something that happened at a moment, or lasted. */
final readonly class TimelineEvent
{
    /**
     * @param  int  $at  seconds since 1970
     * @param  int|null  $until  null for a moment
     * @param  string  $kind  one word of how it is shown; of several that are bundled, the one of the highest weight
     * @param  int  $weight  what matters more stands for what is bundled with it
     * @param  string|null  $page  where it is told in full
     */
    public function __construct(
        public Lane $lane,
        public int $at,
        public ?int $until,
        public string $label,
        public string $kind = '',
        public int $weight = 0,
        public ?string $page = null,
    ) {
    }
}
