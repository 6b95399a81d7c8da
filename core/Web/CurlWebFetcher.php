<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

use CurlHandle;

/** Fetches over HTTP and HTTPS, from a given address of the host where the name does not point there yet. */
final class CurlWebFetcher implements WebFetcher
{
    private const HEAD = 65536;

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
        if ($url === '') {
            throw new \InvalidArgumentException('There is no address to fetch.');
        }
        $hash = hash_init('sha256');
        $most = $this->mostBytes;
        $bytes = 0;
        $head = '';
        $host = (string) parse_url($url, PHP_URL_HOST);
        $usualPort = str_starts_with($url, 'https:') ? 443 : 80;
        $port = parse_url($url, PHP_URL_PORT) ?: $usualPort;
        $address = $at ?? ($this->address)($host);
        curl_reset($this->curl);
        curl_setopt_array($this->curl, [
            CURLOPT_URL => $url,
            CURLOPT_PROTOCOLS => CURLPROTO_HTTP | CURLPROTO_HTTPS,
            CURLOPT_FOLLOWLOCATION => false,
            CURLOPT_CONNECTTIMEOUT => 10,
            CURLOPT_TIMEOUT => $this->seconds,
            CURLOPT_PROXY => '',
            CURLOPT_NOSIGNAL => true,
            CURLOPT_HTTPHEADER => ['Cache-Control: no-cache', 'Pragma: no-cache'],
            CURLOPT_WRITEFUNCTION => static function (CurlHandle $curl, string $chunk) use (
                $hash,
                $most,
                &$bytes,
                &$head,
            ): int {
                hash_update($hash, $chunk);
                $bytes += strlen($chunk);
                $head .= substr($chunk, 0, max(0, self::HEAD - strlen($head)));

                return $bytes > $most ? 0 : strlen($chunk);
            },
        ]
            + ($address === null
            ? []
            : [CURLOPT_RESOLVE => ["$host:$port:".(str_contains($address, ':') ? "[$address]" : $address)]])
            + ($this->authorities === null || $this->authorities === ''
            ? []
            : [CURLOPT_CAINFO => $this->authorities]),
        );
        $done = curl_exec($this->curl);
        $status = curl_getinfo($this->curl, CURLINFO_RESPONSE_CODE);
        $location = curl_getinfo($this->curl, CURLINFO_REDIRECT_URL);

        return new WebAnswer(
            $url,
            $done === false ? 0 : $status,
            hash_final($hash),
            $bytes,
            $head,
            is_string($location) && $location !== '' ? $location : null,
            $done === false ? curl_error($this->curl) : null,
            curl_errno($this->curl) === CURLE_COULDNT_RESOLVE_HOST,
        );
    }
}
