<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** The right to work on something; gone when it is released, or when the processes that hold it are. */
final class HeldLock
{
    /**
     * @param  list<resource>  $streams  that processes which work under it inherit; they hold it as long as it is open
     */
    public function __construct(public readonly array $streams)
    {
    }

    public function release(): void
    {
        foreach ($this->streams as $stream) {
            ! is_resource($stream) ?: fclose($stream);
        }
    }
}
