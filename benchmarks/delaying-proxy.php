<?php

declare(strict_types=1);

/**
 * Usage: php benchmarks/delaying-proxy.php MILLISECONDS TO FROM PORT…
 *
 * Carries TCP connections from one address of this machine to another, port by port, and holds every byte back for
 * half of a round trip each way, as a network would. It speaks no protocol, so TLS goes through it as well; passive
 * FTP does because the data ports are the same on both sides. Says "ready" when it listens.
 */

/** How much may be under way in one direction before no more is taken, in bytes. */
const MOST_UNDER_WAY = 32 << 20;

/** What waking up and handing on takes by itself, in seconds, so that a round trip is as long as it is said to be. */
const HANDING_ON = 0.0004;

[, $milliseconds, $to, $from] = $argv;
$delay = max(0.0, (float) $milliseconds / 2 / 1000 - HANDING_ON);
$context = stream_context_create(['socket' => ['tcp_nodelay' => true, 'so_reuseport' => false]]);
$listening = [];
foreach (array_slice($argv, 4) as $port) {
    $socket = stream_socket_server(
        "tcp://$from:$port",
        $number,
        $error,
        STREAM_SERVER_BIND | STREAM_SERVER_LISTEN,
        $context,
    );
    $socket === false && throw new RuntimeException("$from:$port cannot be listened at: $error");
    stream_set_blocking($socket, false);
    $listening[(int) $port] = $socket;
}

/** @var array<int, resource> $streams by number */
$streams = [];
/** @var array<int, int> $peers the other end of each */
$peers = [];
/** @var array<int, list<array{float, string|null}>> $queues what goes out there: when, and what; null is the end */
$queues = [];
/** @var array<int, int> $underWay bytes in a queue */
$underWay = [];
/** @var array<int, true> $ended those that give no more */
$ended = [];

$drop = static function (int $one) use (&$streams, &$peers, &$queues, &$underWay, &$ended): void {
    foreach ([$one, $peers[$one] ?? $one] as $end) {
        isset($streams[$end]) && fclose($streams[$end]);
        unset($streams[$end], $peers[$end], $queues[$end], $underWay[$end], $ended[$end]);
    }
};
echo "ready\n";

for (; ;) {
    $now = hrtime(true) / 1e9;
    $due = INF;
    $writable = [];
    foreach ($queues as $number => $queue) {
        if ($queue !== []) {
            $queue[0][0] <= $now ? $writable[$number] = $streams[$number] : $due = min($due, $queue[0][0]);
        }
    }
    $readable = $listening;
    foreach ($streams as $number => $stream) {
        isset($ended[$number]) || $underWay[$peers[$number]] > MOST_UNDER_WAY || $readable["s$number"] = $stream;
    }
    $none = null;
    $wait = $due === INF ? 1.0 : max(0.0, $due - $now);
    $heard = @stream_select($readable, $writable, $none, 0, (int) ($wait * 1e6));
    if ($heard === false) {
        continue;
    }
    foreach ($readable as $key => $stream) {
        if (is_int($key)) {
            $near = @stream_socket_accept($stream, 0);
            $far = $near === false ? false : @stream_socket_client(
                "tcp://$to:$key",
                $number,
                $error,
                5,
                STREAM_CLIENT_CONNECT,
                $context,
            );
            if ($near === false || $far === false) {
                continue;
            }
            foreach ([[(int) $near, $near, (int) $far], [(int) $far, $far, (int) $near]] as [$one, $end, $other]) {
                stream_set_blocking($end, false);
                stream_set_read_buffer($end, 0);
                stream_set_write_buffer($end, 0);
                [$streams[$one], $peers[$one], $queues[$one], $underWay[$one]] = [$end, $other, [], 0];
            }

            continue;
        }
        $one = (int) substr($key, 1);
        if (! isset($streams[$one])) {
            continue;
        }
        $chunk = @fread($stream, 1 << 18);
        $other = $peers[$one];
        if ($chunk === false || ($chunk === '' && feof($stream))) {
            $ended[$one] = true;
            $queues[$other][] = [hrtime(true) / 1e9 + $delay, null];
        } elseif ($chunk !== '') {
            $queues[$other][] = [hrtime(true) / 1e9 + $delay, $chunk];
            $underWay[$other] += strlen($chunk);
        }
    }
    $now = hrtime(true) / 1e9;
    foreach ($writable as $number => $stream) {
        while (isset($queues[$number][0]) && $queues[$number][0][0] <= $now) {
            [$when, $chunk] = $queues[$number][0];
            if ($chunk === null) {
                array_shift($queues[$number]);
                @stream_socket_shutdown($stream, STREAM_SHUT_WR);
                isset($ended[$number]) && $drop($number);
                break;
            }
            $sent = @fwrite($stream, $chunk);
            if ($sent === false) {
                $drop($number);
                break;
            }
            $underWay[$number] -= $sent;
            if ($sent < strlen($chunk)) {
                $queues[$number][0] = [$when, substr($chunk, $sent)];
                break;
            }
            array_shift($queues[$number]);
        }
    }
}
