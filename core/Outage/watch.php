<?php

declare(strict_types=1);

/**
 * Asks for the address that the first line of standard input names until standard input ends, and once more after that;
 * writes one line for each answer, see ProbeResult::toArray(), in milliseconds of one clock.
 */

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Outage\ProbeResult;
use Cellarium\Core\Web\CurlWebClient;

require __DIR__.'/../../vendor/autoload.php';

const MILLISECONDS_AT_FIRST = 100;
const OFTEN = 100;
const MILLISECONDS_LATER = 250;
const MOST_SECONDS = 5;
const MOST_BYTES = 2_000_000;

$asks = JsonFields::fromJson((string) fgets(STDIN));
[$url, $at] = [$asks->text('url'), $asks->textOrNull('at')];
$client = new CurlWebClient(static fn (): ?string => $at, $asks->textOrNull('authorities'), MOST_SECONDS, MOST_BYTES);
$answers = [];
$isOver = false;
do {
    $begun = intdiv(hrtime(true), 1_000_000);
    $answer = $client->fetch($url, $at);
    $ended = intdiv(hrtime(true), 1_000_000);
    // A page that is longer than what is read of it is there.
    $asked = new ProbeResult($begun, $ended, $answer->tooLong ? 200 : $answer->status, (string) $answer->error);
    $line = json_encode($asked->toArray(), JSON_INVALID_UTF8_SUBSTITUTE | JSON_THROW_ON_ERROR)."\n";
    // The first at once, since it is waited for; the rest at the end, since nobody empties the pipe until then.
    $answers[] = $answers === [] && fwrite(STDOUT, $line) !== false ? '' : $line;
    if ($isOver) {
        break; // Once more after the end, so that what is there now is known.
    }
    $between = count($answers) <= OFTEN ? MILLISECONDS_AT_FIRST : MILLISECONDS_LATER;
    $read = [STDIN];
    $none = null;
    $isOver = stream_select($read, $none, $none, 0, 1000 * max(0, $between - ($ended - $begun))) !== 0;
} while (true);
fwrite(STDOUT, implode('', $answers));
