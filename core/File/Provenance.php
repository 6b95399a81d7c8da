<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Manifest\ManifestEntry;

/** The origin of a file on a server. */
enum Provenance: string
{
    /** A deployment brought it, and it is as that left it. */
    case Package = 'package';

    /** A deployment brought it, and something else changed it since. */
    case ChangedSince = 'changed_since';

    /** Changed or put there by hand, from here. */
    case ByHand = 'by_hand';

    /** Nobody here put it there. */
    case NotOurs = 'not_ours';

    /**
     * @param  bool  $isBrought  whether the last deployment to there brought it
     * @param  ManifestEntry|null  $left  as that left it; null where that is not known
     * @param  ManifestEntry|null  $byHand  as the last change by hand from here left it, if that came later
     */
    public static function fromEntries(
        ManifestEntry $now,
        bool $isBrought,
        ?ManifestEntry $left,
        ?ManifestEntry $byHand,
    ): self {
        return match (true) {
            $byHand !== null && self::isAsLeft($now, $byHand) => self::ByHand,
            $isBrought && $left !== null && self::isAsLeft($now, $left) => self::Package,
            $isBrought || $byHand !== null => self::ChangedSince,
            default => self::NotOurs,
        };
    }

    /** Another time with the same size is something else: a listing tells no more, and unchanged is not guessed. */
    private static function isAsLeft(ManifestEntry $now, ManifestEntry $left): bool
    {
        return $now->kind === $left->kind && $now->size === $left->size
            && ($now->modified === null || $left->modified === null || $now->modified === $left->modified);
    }
}
