<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

/** A fetcher that can also ask as any visitor does: out of a cache, if one has it. */
interface FetchesPlainly
{
    /** Follows no redirect; a failure is an answer with status 0. */
    public function fetchPlainly(string $url, ?string $at = null): WebAnswer;
}
