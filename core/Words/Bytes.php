<?php

declare(strict_types=1);

namespace Cellarium\Core\Words;

/** Sizes as people read them; decimal units, as hosts sell them. */
final class Bytes
{
    public static function words(int $bytes): string
    {
        [$amount, $decimals, $unit] = match (true) {
            $bytes < 1000 => [$bytes, 0, 'B'],
            $bytes < 1_000_000 => [$bytes / 1000, 1, 'KB'],
            $bytes < 1_000_000_000 => [$bytes / 1_000_000, 1, 'MB'],
            default => [$bytes / 1_000_000_000, 2, 'GB'],
        };
        $text = number_format($amount, $decimals);

        return ($decimals > 0 ? rtrim(rtrim($text, '0'), '.') : $text)." $unit";
    }
}
