<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Credential\Secret;
use RuntimeException;

/** Something asked of a server did not come about; says what, where, why, and what the server said. */
final class RemoteFailure extends RuntimeException
{
    private function __construct(
        public readonly FailureReason $reason,
        public readonly string $what,
        public readonly ?string $serverSaid,
        ?\Throwable $previous,
    ) {
        parent::__construct(
            $what.': '.$reason->sentence().($serverSaid === null ? '' : " (the server said: $serverSaid)"),
            0,
            $previous,
        );
    }

    /**
     * @param  string  $what  what was tried, "reading /www/index.html"
     * @param  string|null  $serverSaid  the last reply, as the server put it; secrets in use are taken out of it
     */
    public static function while(
        string $what,
        FailureReason $reason,
        ?string $serverSaid = null,
        ?\Throwable $previous = null,
    ): self {
        return new self(
            $reason,
            $what,
            $serverSaid === null ? null : mb_substr(mb_scrub(Secret::redact($serverSaid)), 0, 300),
            $previous,
        );
    }
}
