<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

/** Much of what was known of a site is no longer listed; a person has to say that it is right. */
final class ListingDoubted extends \RuntimeException
{
    public function __construct(public readonly ListingShrinkage $shrinkage)
    {
        parent::__construct($shrinkage->sentence());
    }
}
