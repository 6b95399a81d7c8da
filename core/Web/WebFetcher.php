<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

interface WebFetcher
{
    /**
     * Fetches an address past caches, following no redirect; a failure is an answer with status 0.
     *
     * @param  string|null  $at  IP address to ask instead of the one the name leads to; the name still stands in the
     *                           Host header and in SNI (RFC 9110, RFC 6066)
     */
    public function fetch(string $url, ?string $at = null): WebAnswer;
}
