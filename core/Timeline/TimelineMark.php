<?php

declare(strict_types=1);

namespace Cellarium\Core\Timeline;

/** One or several moments that lie so close together that they are drawn as one. */
final readonly class TimelineMark
{
    /**
     * @param  float  $x  0 to the width of the drawing
     * @param  non-empty-list<TimelineEvent>  $events  in their order
     */
    public function __construct(public float $x, public array $events)
    {
    }

    public function count(): int
    {
        return count($this->events);
    }

    /** That which matters most. */
    public function main(): TimelineEvent
    {
        $main = $this->events[0];
        foreach ($this->events as $event) {
            $main = $event->weight > $main->weight ? $event : $main;
        }

        return $main;
    }
}
