<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;

/** A package in the library, with its newest version and where its versions run. */
final readonly class LibraryRow
{
    /**
     * @param  Package  $newest  its newest version
     * @param  list<RunningAt>  $live  where which version is live
     */
    public function __construct(public Package $newest, public int $versions, public array $live)
    {
    }

    /** @return list<RunningAt> sites that run an older version */
    public function behind(): array
    {
        return array_values(array_filter($this->live, fn (RunningAt $at): bool => $at->package < $this->newest->id));
    }
}
