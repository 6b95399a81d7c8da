<?php

declare(strict_types=1);

/*
 * Usage: php hostile-s3.php KIND ELSEWHERE
 *
 * A store that speaks S3 and means ill, on a port that it says first: "redirects" every request to the address
 * ELSEWHERE, "forgets" what it says that it has stored, answers everything with an "empty" 200, or "lists" the same
 * page of names without end. Ends when its standard input does.
 */
[, $kind, $elsewhere] = $argv;
$listening = stream_socket_server('tcp://127.0.0.1:0') ?: exit(1);
echo substr((string) strrchr((string) stream_socket_get_name($listening, false), ':'), 1), "\n";
while (true) {
    $ready = [$listening, STDIN];
    $none = null;
    stream_select($ready, $none, $none, 60);
    if (in_array(STDIN, $ready, true) && feof(STDIN)) {
        exit(0);
    }
    $peer = in_array($listening, $ready, true) ? stream_socket_accept($listening) : false;
    if ($peer === false) {
        fread(STDIN, 1);

        continue;
    }
    $head = '';
    while (! str_contains($head, "\r\n\r\n") && ! feof($peer)) {
        $head .= fread($peer, 65536);
    }
    [$head, $body] = explode("\r\n\r\n", $head, 2) + [1 => ''];
    if (stripos($head, 'Expect: 100-continue') !== false) {
        fwrite($peer, "HTTP/1.1 100 Continue\r\n\r\n");
    }
    $length = preg_match('/^Content-Length: (\d+)/im', $head, $match) === 1 ? (int) $match[1] : 0;
    while (strlen($body) < $length && ! feof($peer)) {
        $body .= fread($peer, 65536);
    }
    $name = str_repeat('a', 64);
    $page = '<?xml version="1.0" encoding="UTF-8"?><ListBucketResult><Name>b</Name><KeyCount>1</KeyCount>'
        .'<MaxKeys>1</MaxKeys><IsTruncated>true</IsTruncated>'
        .'<NextContinuationToken>again</NextContinuationToken><Contents><Key>p/aa/'
        .substr($name, 2).'</Key><Size>3</Size><LastModified>2026-01-01T00:00:00.000Z</LastModified></Contents>'
        .'</ListBucketResult>';
    [$status, $more, $answer] = match (true) {
        $kind === 'redirects' => ['307 Temporary Redirect', "Location: $elsewhere\r\n", ''],
        $kind === 'lists' => ['200 OK', "Content-Type: application/xml\r\n", $page],
        $kind === 'empty' => ['200 OK', '', ''],
        str_starts_with($head, 'PUT') => ['200 OK', 'ETag: "'.md5($body)."\"\r\n", ''],
        default => ['404 Not Found', '', ''],
    };
    $more .= "Connection: close\r\nContent-Length: ".strlen($answer);
    @fwrite($peer, "HTTP/1.1 $status\r\n$more\r\n\r\n$answer");
    fclose($peer);
}
