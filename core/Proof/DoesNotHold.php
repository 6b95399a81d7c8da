<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

use RuntimeException;

/**
 * A step of a proof has shown that something is not as it was meant.
 *
 * @internal
 */
final class DoesNotHold extends RuntimeException
{
    public function __construct(
        public readonly string $step,
        string $sentence,
        public readonly string $next,
        public readonly ?string $answer = null,
    ) {
        parent::__construct($sentence);
    }
}
