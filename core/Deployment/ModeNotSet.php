<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

/** A mode that was to be set and is not what the server has. */
final readonly class ModeNotSet
{
    /**
     * @param  string  $path  below where the run begins
     * @param  int  $due  twelve bits
     * @param  int|null  $has  what is listed; null where the server lists no modes
     */
    public function __construct(
        public string $path,
        public int $due,
        public ?int $has,
    ) {
    }

    public function sentence(): string
    {
        return sprintf('%s should have the mode %04o', $this->path, $this->due)
            .($this->has === null ? ', which the server refused to set' : sprintf(' and has %04o', $this->has));
    }
}
