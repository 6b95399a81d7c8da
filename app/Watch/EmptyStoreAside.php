<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\Person;
use App\Work\Task;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;

/** Removes what lies aside, for a person who has looked at how much that is, and said that it may. */
final readonly class EmptyStoreAside implements Task
{
    public function __construct(private Cleaner $cleaner)
    {
    }

    public static function claim(int $row): Claim
    {
        return new Claim(Urgency::Sweep);
    }

    public function carryOut(int $row): ?int
    {
        $this->cleaner->cleanFor(Person::findOrFail($row), empties: true);

        return null;
    }
}
