<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** A hash that a server has computed over one of its files. */
final readonly class ServerHash
{
    /**
     * @param  string  $algorithm  as hash() calls it
     * @param  string  $hex  lower case
     */
    public function __construct(public string $algorithm, public string $hex)
    {
    }

    /**
     * Whether it is that of contents of ours.
     *
     * @param  string  $sha256  of them
     * @param  \Closure(): resource  $read  gives them, where the server computes another hash
     */
    public function isOf(string $sha256, \Closure $read): bool
    {
        if ($this->algorithm === 'sha256') {
            return hash_equals($sha256, $this->hex);
        }
        $hash = hash_init($this->algorithm);
        hash_update_stream($hash, $read());

        return hash_equals(hash_final($hash), $this->hex);
    }
}
