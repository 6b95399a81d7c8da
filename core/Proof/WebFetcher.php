<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

interface WebFetcher
{
    /** Fetches an address past caches, following no redirect; a failure is an answer with status 0. */
    public function fetch(string $url): WebAnswer;
}
