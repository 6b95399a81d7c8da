<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** Waiting times of one connection, in seconds. */
final readonly class ConnectionSettings
{
    public function __construct(
        public int $connectSeconds = 15,
        public int $answerSeconds = 30,
    ) {
    }
}
