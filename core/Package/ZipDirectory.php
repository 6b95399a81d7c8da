<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/**
 * The names in a zip's directory as their bytes (APPNOTE 4.3.12 to 4.3.16); libzip hands them out cut at a NUL, so that
 * "index.php\0.jpg" would be another file than the one that was looked at.
 */
final class ZipDirectory
{
    private const END = "PK\x05\x06";

    private const END_64 = "PK\x06\x06";

    private const LOCATOR_64 = "PK\x06\x07";

    /** An end record has 22 bytes and a comment of 65,535 at the most; the locator before it has 20. */
    private const TAIL = 22 + 65535 + 20;

    /**
     * @return \Generator<string>
     *
     * @throws PackageRefused Broken
     */
    public static function names(string $file, string $archive): \Generator
    {
        $stream = @fopen($file, 'rb');
        if ($stream === false) {
            throw PackageRefused::because($archive, RefusalReason::Broken);
        }
        try {
            [$count, $offset] = self::place($stream, (int) filesize($file), $archive);
            fseek($stream, $offset);
            for ($index = 0; $index < $count; $index++) {
                $header = (string) fread($stream, 46);
                $lengths = str_starts_with($header, "PK\x01\x02")
                    ? self::numbers('v3', substr($header, 28, 6), 3)
                    : null;
                if ($lengths === null) {
                    throw PackageRefused::because($archive, RefusalReason::Broken, 'in its directory');
                }
                [$name, $extra, $comment] = $lengths;
                yield $name < 1 ? '' : (string) fread($stream, $name);
                fseek($stream, $extra + $comment, SEEK_CUR);
            }
        } finally {
            fclose($stream);
        }
    }

    /**
     * @param  resource  $stream
     * @return array{int, int} entries, and where the directory begins
     */
    private static function place($stream, int $size, string $archive): array
    {
        fseek($stream, max(0, $size - self::TAIL));
        $tail = (string) stream_get_contents($stream);
        $at = strrpos($tail, self::END);
        $end = $at === false ? null : self::numbers('vcount/Vsize/Voffset', substr($tail, $at + 10, 10), 3);
        if ($end === null) {
            throw PackageRefused::because($archive, RefusalReason::Broken, 'at its end');
        }
        [$count, , $offset] = $end;
        $locator = substr($tail, max(0, (int) $at - 20), 20);
        if (($offset !== 0xFFFFFFFF && $count !== 0xFFFF) || ! str_starts_with($locator, self::LOCATOR_64)) {
            return [$count, $offset];
        }
        fseek($stream, self::numbers('P', substr($locator, 8, 8), 1)[0] ?? 0);
        $record = (string) fread($stream, 56);
        $end = str_starts_with($record, self::END_64) ? self::numbers('P3', substr($record, 32, 24), 3) : null;

        return $end === null
            ? throw PackageRefused::because($archive, RefusalReason::Broken, 'at its end')
            : [$end[0], $end[2]];
    }

    /** @return list<int>|null null where there are not as many bytes as it takes */
    private static function numbers(string $format, string $bytes, int $count): ?array
    {
        $values = @unpack($format, $bytes);
        $numbers = $values === false ? [] : array_values(array_filter($values, is_int(...)));

        return count($numbers) === $count ? $numbers : null;
    }
}
