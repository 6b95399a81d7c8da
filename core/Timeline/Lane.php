<?php

declare(strict_types=1);

namespace Cellarium\Core\Timeline;

/** A row of what happened to a site. */
enum Lane: string
{
    /** Which version visitors got. */
    case Live = 'live';

    case Backups = 'backups';

    /** Single files changed by a person, here. */
    case ByHand = 'by_hand';

    /** What changed on the server without anybody having done it here. */
    case ByNobody = 'by_nobody';

    /** Who could have: the account itself and its FTP users. */
    case SignIn = 'sign_in';

    case FailedProofs = 'failed_proofs';

    public function label(): string
    {
        return match ($this) {
            self::Live => 'Live',
            self::Backups => 'Backups',
            self::ByHand => 'By hand here',
            self::ByNobody => 'By nobody here',
            self::SignIn => 'Could sign in',
            self::FailedProofs => 'Failed proofs',
        };
    }

    /** Whether what is in it lasts. */
    public function hasBars(): bool
    {
        return $this === self::Live || $this === self::SignIn;
    }
}
