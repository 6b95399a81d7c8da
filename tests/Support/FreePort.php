<?php

declare(strict_types=1);

namespace Tests\Support;

use RuntimeException;

/**
 * A port that nobody listens at, on any address of this machine. Those given here lie below what the kernel hands out
 * to outgoing connections, so that none of those takes it between being found and being listened at.
 */
final class FreePort
{
    private const FIRST = 20000;

    private const LAST = 32000;

    public static function find(): int
    {
        for ($tries = 0; $tries < 100; $tries++) {
            $port = random_int(self::FIRST, self::LAST);
            $socket = @stream_socket_server("tcp://0.0.0.0:$port");
            if ($socket !== false) {
                fclose($socket);

                return $port;
            }
        }

        throw new RuntimeException('No port of this machine is free.');
    }
}
