<?php

declare(strict_types=1);

namespace Cellarium\Core\Words;

/** Numbers with what they count, as people read them. */
final class Count
{
    /**
     * "1 file", "3 files", "1,204 files".
     *
     * @param  string|null  $many  where it is not the first with an s: "2 directories"
     */
    public static function words(int $count, string $one, ?string $many = null): string
    {
        return number_format($count).' '.self::choose($count, $one, $many ?? "{$one}s");
    }

    /** Those that go with so many: "is" or "are", "the plan that waits" or "the 3 plans that wait". */
    public static function choose(int $count, string $one, string $many): string
    {
        return $count === 1 ? $one : $many;
    }
}
