<?php

declare(strict_types=1);

/*
 * Usage: php trickling-proxy.php PORT AFTER
 *
 * Hands on what a client and a server on 127.0.0.1:PORT say to each other; of what the server says beyond AFTER bytes
 * one byte each tenth of a second. Says the port that it listens at; for one client, then it ends.
 */
[, $port, $after] = $argv;
$listening = stream_socket_server('tcp://127.0.0.1:0') ?: exit(1);
echo substr((string) strrchr((string) stream_socket_get_name($listening, false), ':'), 1), "\n";
$client = stream_socket_accept($listening, 60) ?: exit(1);
$server = stream_socket_client("tcp://127.0.0.1:$port") ?: exit(1);
$said = 0;
while (! feof($client) && ! feof($server)) {
    $readable = [$client, $server];
    $none = null;
    stream_select($readable, $none, $none, 60);
    in_array($client, $readable, true) && fwrite($server, (string) fread($client, 65536));
    if (in_array($server, $readable, true)) {
        $isSlow = $said >= (int) $after;
        $bytes = (string) fread($server, $isSlow ? 1 : 16384);
        $said += strlen($bytes);
        @fwrite($client, $bytes) === false && exit(0);
        $isSlow && usleep(100_000);
    }
}
