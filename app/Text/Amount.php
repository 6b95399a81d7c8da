<?php

declare(strict_types=1);

namespace App\Text;

use Carbon\CarbonInterface;
use Cellarium\Core\Words\Bytes;
use Cellarium\Core\Words\Count;

/** Sizes, speeds and times as people read them; decimal units, as hosts sell them. */
final class Amount
{
    public static function bytes(?int $bytes): string
    {
        return $bytes === null ? 'not known' : Bytes::words($bytes);
    }

    public static function files(int $files): string
    {
        return Count::words($files, 'file');
    }

    public static function seconds(float|int|null $seconds): string
    {
        return match (true) {
            $seconds === null => '…',
            $seconds < 60 => round($seconds, $seconds < 10 ? 1 : 0).' s',
            default => intdiv((int) $seconds, 60).' min '.((int) $seconds % 60).' s',
        };
    }

    public static function ago(?CarbonInterface $moment): string
    {
        return match (true) {
            $moment === null => 'never',
            abs($moment->diffInSeconds(now())) < 60 => 'just now',
            default => $moment->diffForHumans(['short' => true, 'parts' => 1]),
        };
    }
}
