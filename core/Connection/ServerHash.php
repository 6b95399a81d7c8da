<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** What a server has computed over one of its files. */
final readonly class ServerHash
{
    /**
     * @param  string  $algorithm  as hash() calls it
     * @param  string  $hex  lower case
     */
    public function __construct(public string $algorithm, public string $hex)
    {
    }

    /** Whether it is that of a file of ours. */
    public function isOf(string $local): bool
    {
        $ours = @hash_file($this->algorithm, $local);

        return $ours !== false && hash_equals($ours, $this->hex);
    }
}
