<?php

declare(strict_types=1);

namespace App\Work;

use Cellarium\Core\Work\Urgency;

/** One place to wait at for each kind of worker. */
final class Wakes
{
    /** @var array<string, Wake> */
    private array $wakes = [];

    public function __construct(private readonly string $directory)
    {
    }

    public static function here(): self
    {
        return new self(config('cellarium.var').'/run');
    }

    /** All workers of this installation look once, for instance whether they are to begin anew. */
    public function everybody(): void
    {
        $this->of(FairQueue::ANY)->all();
        $this->of(Urgency::Closing->value)->all();
    }

    public function of(string $queue): Wake
    {
        return $this->wakes[$queue] ??= new Wake("$this->directory/wake-$queue");
    }
}
