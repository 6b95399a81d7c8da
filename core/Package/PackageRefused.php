<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use RuntimeException;

/** A package was not taken in, and nothing of it was kept. */
final class PackageRefused extends RuntimeException
{
    private function __construct(
        public readonly string $package,
        public readonly RefusalReason $reason,
        string $sentence,
    ) {
        parent::__construct($sentence);
    }

    public static function because(string $package, RefusalReason $reason, ?string $detail = null): self
    {
        return new self(
            $package,
            $reason,
            $reason->sentence($detail === null ? null : mb_substr(mb_scrub($detail), 0, 200)),
        );
    }
}
