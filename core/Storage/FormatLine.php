<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * The line by which what is stored says how it is written, as a number that only rises; older text has none and counts
 * as 1. What a newer version of Cellarium has written is told as that, and never as damaged or gone.
 */
final class FormatLine
{
    public static function forFormat(int $format): string
    {
        return "{\"format\":$format}\n";
    }

    /**
     * @param  string  $what  it is, for the failure
     * @param  int  $newest  format that is understood here
     * @return string the text without the line
     *
     * @throws StoreFailure
     */
    public static function without(string $text, string $what, int $newest): string
    {
        if (preg_match('/\A\{"format":(\d{1,9})\}\n/', $text, $match) !== 1) {
            return $text;
        }
        (int) $match[1] <= $newest || throw StoreFailure::newer($what, (int) $match[1], $newest);

        return substr($text, strlen($match[0]));
    }
}
