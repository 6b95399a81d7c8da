<?php

declare(strict_types=1);

namespace Cellarium\Core\Timeline;

/** Something that lasted, as far as it lies within what is drawn. */
final readonly class TimelineBar
{
    /**
     * @param  float  $x  0 to the width of the drawing
     * @param  int  $row  within its lane; two that overlap are in different ones
     * @param  bool  $begins  whether its beginning is drawn
     */
    public function __construct(
        public float $x,
        public float $width,
        public int $row,
        public bool $begins,
        public TimelineEvent $event,
    ) {
    }
}
