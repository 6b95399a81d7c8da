<?php

declare(strict_types=1);

namespace Cellarium\Core\Timeline;

/** Something that lasted, as far as it lies within what is drawn; or several that were too short to be drawn alone. */
final readonly class TimelineBar
{
    /**
     * @param  float  $x  0 to the width of the drawing
     * @param  int  $row  within its lane; two that overlap are in different ones
     * @param  bool  $begins  whether its beginning is drawn
     * @param  TimelineEvent  $event  of several, the last
     * @param  int<1, max>  $count  of how many
     */
    public function __construct(
        public float $x,
        public float $width,
        public int $row,
        public bool $begins,
        public TimelineEvent $event,
        public int $count = 1,
    ) {
    }

    public function inRow(int $row): self
    {
        return new self($this->x, $this->width, $row, $this->begins, $this->event, $this->count);
    }

    /** With one that comes right behind it. */
    public function with(self $next): self
    {
        return new self(
            $this->x,
            max($this->width, $next->x + $next->width - $this->x),
            $this->row,
            $this->begins,
            $next->event,
            $this->count + $next->count,
        );
    }
}
