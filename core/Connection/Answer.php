<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** A reply on a control connection (RFC 959, 4.2). */
final readonly class Answer
{
    /**
     * @param  int  $code  0 for what is no reply of FTP
     * @param  list<string>  $lines  as they came, scrubbed to UTF-8
     */
    public function __construct(
        public int $code,
        public array $lines,
    ) {
    }

    public function text(): string
    {
        return mb_substr($this->lines[count($this->lines) - 1] ?? '', 0, 200);
    }

    public function mentions(string $pattern): bool
    {
        return preg_match($pattern, implode("\n", $this->lines)) === 1;
    }
}
