<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Backup\TrustedListing;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferPool;

/** A directory as it is listed now, whatever was known of it. */
final class Listed
{
    /** @param  Manifest|null  $known  what was read there before and is taken for unchanged */
    public static function at(TransferPool $pool, RemotePath $root, ?Manifest $known = null): TrustedListing
    {
        $look = $known === null ? EarlierLook::never() : EarlierLook::at(4_000_000_000, $known);

        return TrustedListing::fromSurvey(
            $pool,
            $root,
            (new Surveyor($pool))->survey($root),
            $look,
            1.0,
            true,
        )->knowing($look);
    }
}
