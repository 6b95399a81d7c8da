<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

use Cellarium\Core\Credential\Secret;
use CurlHandle;

/** One client over HTTP and HTTPS: at a given address of the host where the name does not point there yet. */
final class CurlWebClient implements ServiceCaller, WebFetcher
{
    /** So much of a page is kept to be looked at. */
    private const HEAD = 65_536;

    /** No answer of a service is longer; ten thousand FTP users take two million bytes. */
    private const LONGEST_ANSWER = 16_000_000;

    private readonly CurlHandle $curl;

    /** @param  \Closure(string): ?string  $address IP address for a host name, null to ask the name service */
    public function __construct(
        private readonly \Closure $address,
        private readonly ?string $authorities = null,
        private readonly int $seconds = 20,
        private readonly int $mostBytes = 2_000_000_000,
    ) {
        $this->curl = curl_init();
    }

    public function fetch(string $url, ?string $at = null): WebAnswer
    {
        return $this->exchange(
            $url,
            $at,
            new BodySink(self::HEAD, $this->mostBytes),
            [CURLOPT_HTTPHEADER => ['Cache-Control: no-cache', 'Pragma: no-cache']],
        );
    }

    public function call(
        string $method,
        string $url,
        Secret $token,
        ?Secret $json = null,
    ): WebAnswer {
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
        if ($url === '') {
            throw new \InvalidArgumentException('There is no address to fetch.');
        }
        curl_reset($this->curl);
        curl_setopt_array(
            $this->curl,
            $options + $this->resolved($url, $at) + [
                CURLOPT_URL => $url,
                CURLOPT_PROTOCOLS => CURLPROTO_HTTP | CURLPROTO_HTTPS,
                CURLOPT_FOLLOWLOCATION => false,
                CURLOPT_CONNECTTIMEOUT => 10,
                CURLOPT_TIMEOUT => $this->seconds,
                CURLOPT_PROXY => '',
                CURLOPT_NOSIGNAL => true,
                CURLOPT_WRITEFUNCTION => static fn (CurlHandle $curl, string $chunk): int => $sink->take($chunk),
            ] + ($this->authorities === null || $this->authorities === ''
                ? []
                : [CURLOPT_CAINFO => $this->authorities]),
        );
        $done = curl_exec($this->curl);
        $status = curl_getinfo($this->curl, CURLINFO_RESPONSE_CODE);
        $location = curl_getinfo($this->curl, CURLINFO_REDIRECT_URL);
        $error = match (true) {
            $done !== false => null,
            $sink->isOver() => 'The answer is longer than '.number_format($sink->most).' bytes',
            default => curl_error($this->curl),
        };
        $nameUnknown = curl_errno($this->curl) === CURLE_COULDNT_RESOLVE_HOST;
        curl_reset($this->curl); // What was sent, and to where, does not stay in the handle.

        return new WebAnswer(
            $url,
            $done === false ? 0 : $status,
            $sink->sha256(),
            $sink->bytes(),
            $sink->head(),
            is_string($location) && $location !== '' ? $location : null,
            $error,
            $nameUnknown,
            $sink->isOver(),
        );
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
