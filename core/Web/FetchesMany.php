<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

/** A fetcher of many addresses in the time of a few: some at once, so that a small host is not pressed. */
interface FetchesMany
{
    /**
     * @param  list<string>  $urls  each once
     * @param  string|null  $at  as WebFetcher::fetch() has it
     * @return array<string, WebAnswer> by address
     */
    public function fetchMany(array $urls, ?string $at = null): array;
}
