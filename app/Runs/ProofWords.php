<?php

declare(strict_types=1);

namespace App\Runs;

/** Words beside the status of an address that was fetched. */
final class ProofWords
{
    /** @param  array<string, mixed>  $proof  as PageProof::toArray() gives it */
    public static function forProof(array $proof): string
    {
        $gone = ($proof['gone'] ?? false) === true;

        return match (true) {
            $proof['matches'] === null => '',
            ($proof['fits'] ?? true) === false => ', same bytes, sent as another kind',
            $gone => $proof['matches'] === true ? ', gone' : ', still there',
            default => $proof['matches'] === true ? ', same bytes' : ', other bytes',
        };
    }
}
