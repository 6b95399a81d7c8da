<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

use Cellarium\Core\Credential\Secret;
use CurlHandle;

/** One client over HTTP and HTTPS: at a given address of the host where the name does not point there yet. */
final class CurlWebClient implements FetchesMany, FetchesPlainly, ServiceCaller, WebFetcher
{
    /** So much of a page is kept to be looked at. */
    private const HEAD = 65_536;

    /** So many addresses of one host are asked for at the same time. */
    private const AT_ONCE = 4;

    private const PAST_CACHES = [CURLOPT_HTTPHEADER => ['Cache-Control: no-cache', 'Pragma: no-cache']];

    /** No answer of a service is longer; ten thousand FTP users take two million bytes. */
    private const LONGEST_ANSWER = 16_000_000;

    /** So many answers of a host that trickle until the time is over, and the next ones are waited for less. */
    private const PATIENT_TIMES = 2;

    /** Bytes a second; what comes faster and is not there in time is large. */
    private const TRICKLE = 1_000;

    private readonly CurlHandle $curl;

    /** @var array<string, int> answers that trickled, by host */
    private array $trickled = [];

    /** @param  \Closure(string): ?string  $address IP address for a host name, null to ask the name service */
    public function __construct(
        private readonly \Closure $address,
        private readonly ?string $authorities = null,
        private readonly int $seconds = 20,
        private readonly int $mostBytes = 2_000_000_000,
        private readonly int $impatientSeconds = 4,
    ) {
        $this->curl = curl_init();
    }

    public function fetch(string $url, ?string $at = null): WebAnswer
    {
        return $this->exchange($url, $at, new BodySink(self::HEAD, $this->mostBytes), self::PAST_CACHES);
    }

    public function fetchPlainly(string $url, ?string $at = null): WebAnswer
    {
        return $this->exchange($url, $at, new BodySink(self::HEAD, $this->mostBytes), [CURLOPT_CERTINFO => true]);
    }

    public function fetchMany(array $urls, ?string $at = null): array
    {
        $answers = [];
        $multi = curl_multi_init();
        /** @var array<int, array{CurlHandle, string, BodySink}> $busy by the number of the handle */
        $busy = [];
        do {
            while ($urls !== [] && count($busy) < self::AT_ONCE) {
                [$url, $curl, $sink] = [array_shift($urls), curl_init(), new BodySink(self::HEAD, $this->mostBytes)];
                $this->prepare($curl, $url, $at, $sink, self::PAST_CACHES);
                curl_multi_add_handle($multi, $curl);
                $busy[spl_object_id($curl)] = [$curl, $url, $sink];
            }
            curl_multi_exec($multi, $running);
            while (($told = curl_multi_info_read($multi)) !== false) {
                $curl = $told['handle'] ?? null;
                if (! $curl instanceof CurlHandle) {
                    continue;
                }
                [, $url, $sink] = $busy[spl_object_id($curl)];
                $answers[$url] = $this->answer(
                    $curl,
                    $url,
                    $sink,
                    is_int($told['result'] ?? null) ? $told['result'] : CURLE_FAILED_INIT,
                );
                curl_multi_remove_handle($multi, $curl);
                unset($busy[spl_object_id($curl)]);
            }
            $busy === [] || curl_multi_select($multi, 0.2);
        } while ($busy !== [] || $urls !== []);

        return $answers;
    }

    public function call(string $method, string $url, Secret $token, ?Secret $json = null): WebAnswer
    {
        return $this->exchange(
            $url,
            null,
            new BodySink(self::LONGEST_ANSWER, self::LONGEST_ANSWER),
            [
                CURLOPT_CUSTOMREQUEST => $method,
                CURLOPT_HTTPHEADER => [
                    'Authorization: Bearer '.$token->reveal(),
                    'Content-Type: application/json',
                    'Accept: application/json',
                ],
            ] + ($json === null ? [] : [CURLOPT_POSTFIELDS => $json->reveal()]),
        );
    }

    /** @param  array<int, mixed>  $options */
    private function exchange(
        string $url,
        ?string $at,
        BodySink $sink,
        #[\SensitiveParameter] array $options,
    ): WebAnswer {
        curl_reset($this->curl);
        $this->prepare($this->curl, $url, $at, $sink, $options);
        curl_exec($this->curl);
        $answer = $this->answer($this->curl, $url, $sink, curl_errno($this->curl));
        curl_reset($this->curl); // What was sent, and to where, does not stay in the handle.

        return $answer;
    }

    /** @param  array<int, mixed>  $options */
    private function prepare(
        CurlHandle $curl,
        string $url,
        ?string $at,
        BodySink $sink,
        #[\SensitiveParameter] array $options,
    ): void {
        if ($url === '') {
            throw new \InvalidArgumentException('There is no address to fetch.');
        }
        curl_setopt_array(
            $curl,
            $options + $this->resolved($url, $at) + [
                CURLOPT_URL => $url,
                CURLOPT_PROTOCOLS => CURLPROTO_HTTP | CURLPROTO_HTTPS,
                CURLOPT_FOLLOWLOCATION => false,
                CURLOPT_CONNECTTIMEOUT => 10,
                CURLOPT_TIMEOUT => $this->patience($url),
                CURLOPT_PROXY => '',
                CURLOPT_NOSIGNAL => true,
                CURLOPT_WRITEFUNCTION => static fn (CurlHandle $curl, string $chunk): int => $sink->take($chunk),
                CURLOPT_HEADERFUNCTION => $sink->headers->listener(),
            ] + ($this->authorities === null || $this->authorities === ''
                ? []
                : [CURLOPT_CAINFO => $this->authorities]),
        );
    }

    /** @param  int  $result  libcurl's error number */
    private function answer(CurlHandle $curl, string $url, BodySink $sink, int $result): WebAnswer
    {
        $done = $result === CURLE_OK;
        if ($result === CURLE_OPERATION_TIMEDOUT && curl_getinfo($curl, CURLINFO_SPEED_DOWNLOAD_T) < self::TRICKLE) {
            $this->trickled[self::host($url)] = ($this->trickled[self::host($url)] ?? 0) + 1;
        }
        /** @var mixed $location */
        $location = curl_getinfo($curl, CURLINFO_REDIRECT_URL);

        return new WebAnswer(
            $url,
            $done ? (int) curl_getinfo($curl, CURLINFO_RESPONSE_CODE) : 0,
            $sink->sha256(),
            $sink->bytes(),
            $sink->head(),
            is_string($location) && $location !== '' ? $location : null,
            match (true) {
                $done => null,
                $sink->isOver() => 'The answer is longer than '.number_format($sink->most).' bytes',
                default => curl_error($curl) ?: (string) curl_strerror($result),
            },
            $result === CURLE_COULDNT_RESOLVE_HOST,
            $sink->isOver(),
            $sink->headers->fields,
            self::certificateEnds($curl),
        );
    }

    /** Seconds; a host that drips does not keep whoever asks for each of its pages. */
    private function patience(string $url): int
    {
        return ($this->trickled[self::host($url)] ?? 0) < self::PATIENT_TIMES
            ? $this->seconds
            : min($this->seconds, $this->impatientSeconds);
    }

    private static function host(string $url): string
    {
        return strtolower((string) parse_url($url, PHP_URL_HOST));
    }

    private static function certificateEnds(CurlHandle $curl): ?int
    {
        /** @var mixed $chain */
        $chain = curl_getinfo($curl, CURLINFO_CERTINFO);
        $own = is_array($chain) && is_array($chain[0] ?? null) ? $chain[0]['Expire date'] ?? null : null;
        $ends = is_string($own) ? strtotime($own) : false;

        return $ends === false ? null : $ends;
    }

    /** @return array<int, mixed> where the host of the address is, if that is not what its name says */
    private function resolved(string $url, ?string $at): array
    {
        $host = (string) parse_url($url, PHP_URL_HOST);
        $usualPort = str_starts_with($url, 'https:') ? 443 : 80;
        $port = parse_url($url, PHP_URL_PORT) ?: $usualPort;
        $address = $at ?? ($this->address)($host);
        if ($address === null) {
            return [];
        }

        return [CURLOPT_RESOLVE => ["$host:$port:".(str_contains($address, ':') ? "[$address]" : $address)]];
    }
}
