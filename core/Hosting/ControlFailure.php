<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Credential\Secret;
use RuntimeException;

/** The hosting company did not do what was asked. */
final class ControlFailure extends RuntimeException
{
    private function __construct(public readonly ControlFault $reason, string $sentence)
    {
        parent::__construct($sentence);
    }

    public static function while(string $what, ControlFault $reason, ?string $said = null): self
    {
        return new self(
            $reason,
            "$what: {$reason->sentence()}"
                .($said === null ? '' : ' (the host said: '.mb_substr(mb_scrub(Secret::redact($said)), 0, 200).')'),
        );
    }
}
