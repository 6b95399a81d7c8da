<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use RuntimeException;

/** So many contents would go at once that a person has to say so. */
final class TooMuchToSweep extends RuntimeException
{
    public function __construct(public readonly int $going, public readonly int $of)
    {
        parent::__construct(
            'Nothing refers to '.number_format($going).' of '.number_format($of).' stored contents. More than a tenth, '
                .'or more than '.number_format(ContentSweep::MOST).', at once is not removed without a person. Nothing '
                .'was removed.',
        );
    }
}
