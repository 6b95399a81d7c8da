<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Drawing;

/** References from one place of the drawing to another one. */
final readonly class DrawnArc
{
    /**
     * @param  int  $from  the number of a node, from 0
     * @param  int  $to  the same
     * @param  int  $times  how many references it stands for
     */
    public function __construct(
        public int $from,
        public int $to,
        public int $times,
        public bool $isBroken,
    ) {
    }
}
