<?php

declare(strict_types=1);

namespace Tests\Support;

use ZipArchive;

/** Archives made for tests, good and hostile ones. */
final class Zips
{
    /** @param  array<string, string>  $files contents by entry name; a name ending in a slash is a directory */
    public static function make(string $to, array $files, ?\Closure $change = null): string
    {
        $zip = new ZipArchive;
        $zip->open($to, ZipArchive::CREATE | ZipArchive::OVERWRITE);
        foreach ($files as $name => $text) {
            str_ends_with($name, '/') ? $zip->addEmptyDir(rtrim($name, '/')) : $zip->addFromString($name, $text);
        }
        if ($change !== null) {
            $change($zip);
        }
        $zip->close();

        return $to;
    }

    /** Zeros, streamed so that the test does not hold them: packed to about a thousandth. */
    public static function bomb(string $to, int $files, int $megabytesEach): string
    {
        $source = dirname($to).'/zeros';
        $stream = fopen($source, 'wb');
        ftruncate($stream, $megabytesEach * 1_000_000);
        fclose($stream);
        $zip = new ZipArchive;
        $zip->open($to, ZipArchive::CREATE | ZipArchive::OVERWRITE);
        $zip->addFile($source, 'index.html');
        $zip->close();
        unlink($source);
        if ($files > 1) {
            self::repeatEntry($to, $files);
        }

        return $to;
    }

    /** The directory names the one packed entry many times over, so that a small file declares a huge one. */
    private static function repeatEntry(string $zip, int $times): void
    {
        $data = (string) file_get_contents($zip);
        $at = (int) strrpos($data, "PK\x01\x02");
        $end = (int) strrpos($data, "PK\x05\x06");
        $entry = substr($data, $at, $end - $at);
        $directory = '';
        for ($number = 0; $number < $times; $number++) {
            $directory .= str_replace('index.html', sprintf('in%03d.html', $number), $entry);
        }
        $tail = "PK\x05\x06".pack('vvvvVVv', 0, 0, $times, $times, strlen($directory), $at, 0);
        file_put_contents($zip, substr($data, 0, $at).$directory.$tail);
    }
}
