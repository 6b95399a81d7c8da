<?php

declare(strict_types=1);

namespace App\Files;

use Carbon\CarbonImmutable;

/** A version of a file that can be restored. */
final readonly class KeptVersion
{
    /**
     * @param  string  $from  in words: what kept it
     * @param  string|null  $who  did that
     * @param  string|null  $url  of what kept it
     * @param  bool  $isNow  whether the file holds it now, as far as its size and time tell
     */
    public function __construct(
        public string $sha256,
        public int $size,
        public ?int $mode,
        public CarbonImmutable $at,
        public string $from,
        public ?string $who,
        public ?string $url,
        public bool $isNow = false,
    ) {
    }

    public function asNow(bool $isNow): self
    {
        return new self(
            $this->sha256,
            $this->size,
            $this->mode,
            $this->at,
            $this->from,
            $this->who,
            $this->url,
            $isNow,
        );
    }
}
