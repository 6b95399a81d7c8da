<?php

declare(strict_types=1);

namespace Cellarium\Core\Record;

use Cellarium\Core\Credential\Secret;

/**
 * Each line of the record carries a seal over itself and the one before, so that a change, a gap and an order that is
 * not the one it was written in show. Without the key nobody can seal what they made up.
 */
final readonly class RecordChain
{
    /** What stands before the first line. */
    public const START = '0000000000000000000000000000000000000000000000000000000000000000';

    public function __construct(private Secret $key)
    {
    }

    /**
     * HMAC-SHA-256 (RFC 2104) over the seal before and the line as JSON with sorted names (in the manner of RFC 8785).
     *
     * @param  string  $before  the seal of the line before, in hexadecimal
     * @param  array<string, mixed>  $line
     */
    public function seal(string $before, array $line): string
    {
        $flags = JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION;

        return hash_hmac('sha256', $before.json_encode(self::sorted($line), $flags), $this->key->reveal());
    }

    /**
     * @param  array<mixed>  $line
     * @return array<mixed>
     */
    private static function sorted(array $line): array
    {
        array_is_list($line) || ksort($line, SORT_STRING);

        return array_map(static fn (mixed $one): mixed => is_array($one) ? self::sorted($one) : $one, $line);
    }
}
