<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** Candidates of a srcset attribute (HTML Living Standard, 4.8.4.2). */
final class Srcset
{
    /** @return list<array{string, int}> each address with its place in the attribute, in bytes */
    public static function candidates(string $value): array
    {
        $found = [];
        $at = 0;
        $end = strlen($value);
        while (true) {
            $at += strspn($value, " \t\n\f\r,", $at);
            if ($at >= $end) {
                return $found;
            }
            $length = strcspn($value, " \t\n\f\r", $at);
            $url = rtrim(substr($value, $at, $length), ',');
            $url === '' || $found[] = [$url, $at];
            $hasDescriptor = strlen($url) === $length;
            $at += $length;
            // A comma within parentheses belongs to the descriptor.
            for ($depth = 0; $hasDescriptor && $at < $end; $at++) {
                $depth += match ($value[$at]) {
                    '(' => 1,
                    ')' => -1,
                    default => 0,
                };
                if ($value[$at] === ',' && $depth <= 0) {
                    break;
                }
            }
        }
    }
}
