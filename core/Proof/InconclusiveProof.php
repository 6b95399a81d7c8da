<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

use Cellarium\Core\Connection\RemoteFailure;
use RuntimeException;

/**
 * Thrown where a proof needs somebody else's sign-in and that did not come about, which says nothing about what was to
 * be proven.
 *
 * @internal
 */
final class InconclusiveProof extends RuntimeException
{
    public function __construct(public readonly RemoteFailure $failure)
    {
        parent::__construct($failure->getMessage(), 0, $failure);
    }
}
