<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** Waiting times of one connection, in seconds. */
final readonly class FtpSettings
{
    public function __construct(
        public int $connectSeconds = 15,
        public int $answerSeconds = 30,
    ) {
    }
}
