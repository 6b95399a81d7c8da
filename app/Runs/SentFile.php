<?php

declare(strict_types=1);

namespace App\Runs;

/** One file of a run that goes on, and how far it has come, in words and a tone. */
final readonly class SentFile
{
    public function __construct(
        public string $path,
        public string $words,
        public string $tone,
    ) {
    }
}
