<?php

declare(strict_types=1);

namespace Tests\Support;

/** Tar archives put together block by block, so that they may say anything. */
final class Tars
{
    /**
     * @param  string  $kind  "0" a file, "5" a directory, "1" and "2" links, "x" and "L" records for the next entry
     * @param  string|null  $size  as it is written, 12 bytes, where it is not the length of the contents
     */
    public static function entry(
        string $name,
        string $contents = '',
        string $kind = '0',
        ?string $size = null,
    ): string {
        $header = str_pad($name, 100, "\0")
            .sprintf("%07o\0%07o\0%07o\0", 0644, 0, 0)
            .($size ?? sprintf("%011o\0", strlen($contents)))
            .sprintf("%011o\0", 0)
            .'        '
            .$kind
            .str_repeat("\0", 100)
            ."ustar\x0000";
        $header = str_pad($header, 512, "\0");
        $sum = sprintf("%06o\0 ", array_sum(array_map(ord(...), str_split($header))));
        $padding = str_repeat("\0", (512 - strlen($contents) % 512) % 512);

        return substr_replace($header, $sum, 148, 8).$contents.$padding;
    }

    /** Very many empty files, with no end. */
    public static function many(int $entries): string
    {
        $first = self::entry('0000000');
        $sum = (int) octdec(substr($first, 148, 6));
        $blocks = '';
        for ($number = 0; $number < $entries; $number++) {
            $name = sprintf('%07d', $number);
            $more = array_sum(str_split($name));
            $blocks .= $name.substr($first, 7, 141).sprintf('%06o', $sum + $more).substr($first, 154);
        }

        return $blocks;
    }

    /** A pax record for the next entry (POSIX.1-2001): its length, in digits, is part of it. */
    public static function pax(string $key, string $value): string
    {
        $rest = " $key=$value\n";
        $length = strlen($rest) + 1;
        while (strlen((string) $length) + strlen($rest) !== $length) {
            $length = strlen((string) $length) + strlen($rest);
        }

        return self::entry('pax', $length.$rest, 'x');
    }

    public static function end(): string
    {
        return str_repeat("\0", 1024);
    }

    /** @return string the same, packed by the program xz */
    public static function xz(string $bytes, string $scratch): string
    {
        file_put_contents($scratch, $bytes);
        exec('xz --compress --keep --force --suffix=.x '.escapeshellarg($scratch).' 2>&1', $said, $status);
        $status === 0 || throw new \RuntimeException(implode("\n", $said));
        $packed = (string) file_get_contents("$scratch.x");
        unlink($scratch);
        unlink("$scratch.x");

        return $packed;
    }
}
