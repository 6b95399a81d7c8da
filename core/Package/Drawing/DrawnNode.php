<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Drawing;

/** A place on the line of the drawing. */
final readonly class DrawnNode
{
    /**
     * @param  string  $path  of the file or the directory
     * @param  int  $files  how many it stands for
     * @param  bool  $isReached  whether visitors come there from the start page
     */
    public function __construct(
        public NodeKind $kind,
        public string $path,
        public int $files,
        public bool $isReached,
    ) {
    }
}
