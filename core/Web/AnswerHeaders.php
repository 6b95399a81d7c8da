<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

use CurlHandle;

/** Of the fields of an answer, those that tell of caches (RFC 9111, RFC 9211) and the kind of content (RFC 9110). */
final class AnswerHeaders
{
    private const NAMES = [
        'age',
        'cache-control',
        'cache-status',
        'content-disposition',
        'content-type',
        'date',
        'expires',
        'last-modified',
        'via',
        'x-cache',
        'x-content-type-options',
    ];

    private const LONGEST = 500;

    /** @var array<string, string> by name in small letters */
    public array $fields = [];

    /** @return \Closure(CurlHandle, string): int for CURLOPT_HEADERFUNCTION */
    public function listener(): \Closure
    {
        return function (CurlHandle $curl, string $line): int {
            [$name, $value] = explode(':', $line, 2) + [1 => ''];
            $name = strtolower(trim($name));
            if (in_array($name, self::NAMES, true)) {
                $this->fields[$name] = mb_scrub(substr(trim($value), 0, self::LONGEST));
            }

            return strlen($line);
        };
    }
}
