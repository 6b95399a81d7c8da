<?php

declare(strict_types=1);

namespace App\Work;

/** One place to wait at for each kind of worker. */
final class Wakes
{
    /** @var array<string, Wake> */
    private array $wakes = [];

    public function __construct(private readonly string $directory)
    {
    }

    public function of(string $queue): Wake
    {
        return $this->wakes[$queue] ??= new Wake("$this->directory/wake-$queue");
    }
}
