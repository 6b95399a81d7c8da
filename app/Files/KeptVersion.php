<?php

declare(strict_types=1);

namespace App\Files;

use Carbon\CarbonImmutable;

/** What a file held once, and can hold again. */
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
}
