<?php

declare(strict_types=1);

namespace Cellarium\Standin\Http;

final readonly class Request
{
    /**
     * @param  string  $path  as sent, still percent-encoded, without the query
     * @param  array<string, string>  $headers  names in lower case
     */
    public function __construct(
        public string $method,
        public string $path,
        public string $query,
        public array $headers,
        public string $body,
    ) {
    }

    public function header(string $name): string
    {
        return $this->headers[strtolower($name)] ?? '';
    }

    /** The Host header without port, in lower case. */
    public function host(): string
    {
        return strtolower(preg_replace('/:\d+\z/', '', $this->header('host')) ?? '');
    }
}
