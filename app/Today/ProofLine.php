<?php

declare(strict_types=1);

namespace App\Today;

/** A fact with its tone. */
final readonly class ProofLine
{
    public function __construct(public string $tone, public string $words)
    {
    }
}
