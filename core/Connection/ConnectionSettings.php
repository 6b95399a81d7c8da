<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** How long one connection waits, and how much it takes in. */
final readonly class ConnectionSettings
{
    /**
     * @param  int  $connectSeconds  until a connection stands
     * @param  int  $answerSeconds  without a sign of life
     * @param  int  $mostEntries  names in one directory
     * @param  int  $mostListingBytes  of one directory's listing
     */
    public function __construct(
        public int $connectSeconds = 15,
        public int $answerSeconds = 30,
        public int $mostEntries = 100_000,
        public int $mostListingBytes = 33_554_432,
    ) {
    }
}
