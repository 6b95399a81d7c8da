<?php

declare(strict_types=1);

namespace Cellarium\Core\Archive;

/**
 * An archive that is written as it goes (ZIP, APPNOTE 6.3.10).
 *
 * What is stored in it and not compressed has a length that is known before the first byte: so a browser shows how far
 * it has come, and tells a part from the whole. Names are the server's own bytes; times and modes are kept.
 */
final class ZipOut
{
    private const MOST_32 = 0xFFFFFFFF;

    private const MOST_16 = 0xFFFF;

    /** Compressed bytes that are held in memory; more of them in a file that is gone by itself. */
    private const HELD_BYTES = 4 << 20;

    /** Version 4.5 knows files of more than 4 GiB; the upper byte says that modes are those of Unix. */
    private const MADE_BY = 3 << 8 | 45;

    private const FILE = 0100000;

    private const DIRECTORY = 0040000;

    private int $at = 0;

    private int $count = 0;

    private string $directory = '';

    /** @param  \Closure(string): void  $out */
    public function __construct(private readonly \Closure $out)
    {
    }

    /**
     * @param  iterable<array{string, int}>  $entries  name in the archive and size, directories with a slash behind and
     *     no size
     * @return int bytes of an archive that holds them
     */
    public static function length(iterable $entries): int
    {
        $ends = 0;
        $zip = new self(static function (string $bytes) use (&$ends): void {
            $ends += strlen($bytes);
        });
        foreach ($entries as [$name, $size]) {
            $zip->begin($name, self::FILE, 0, new ZippedSize($size, $size, 0));
            $zip->at += $size;
            $ends += $size;
        }
        $zip->finish();

        return $ends;
    }

    /**
     * @param  string  $name  bytes, with "/" between and behind directories
     * @param  int|null  $modified  seconds since 1970
     */
    public function directory(string $name, ?int $modified, ?int $mode): void
    {
        $this->begin("$name/", self::DIRECTORY | ($mode ?? 0755), $modified ?? 0, new ZippedSize(0, 0, 0));
    }

    /**
     * @param  resource  $bytes  read from where it stands to its end
     * @param  ZippedSize  $size  that it will give
     *
     * @throws \LengthException where it gives others
     */
    public function file(string $name, ?int $modified, ?int $mode, ZippedSize $size, $bytes): void
    {
        $this->begin($name, self::FILE | ($mode ?? 0644), $modified ?? 0, $size);
        $left = $size->bytes;
        while ($left > 0 && ($chunk = fread($bytes, 1 << 18)) !== false && $chunk !== '') {
            $left -= strlen($chunk);
            $this->put($chunk);
        }
        $left === 0 || throw new \LengthException("$name has other bytes than it was said to have.");
    }

    /**
     * @param  resource  $bytes  read from where it stands to its end
     * @param  int  $level  1 (quick) to 9
     */
    public function compressed(string $name, ?int $modified, ?int $mode, $bytes, int $level): void
    {
        $packed = fopen('php://temp/maxmemory:'.self::HELD_BYTES, 'w+b');
        $deflate = deflate_init(ZLIB_ENCODING_RAW, ['level' => $level]);
        if ($packed === false || $deflate === false) {
            throw new \RuntimeException("$name could not be compressed: there is no room to do so.");
        }
        $crc = hash_init('crc32b');
        $size = 0;
        $length = 0;
        while (($chunk = (string) fread($bytes, 1 << 18)) !== '') {
            $size += strlen($chunk);
            hash_update($crc, $chunk);
            $length += (int) fwrite($packed, (string) deflate_add($deflate, $chunk, ZLIB_NO_FLUSH));
        }
        $length += (int) fwrite($packed, (string) deflate_add($deflate, '', ZLIB_FINISH));
        $this->begin(
            $name,
            self::FILE | ($mode ?? 0644),
            $modified ?? 0,
            ZippedSize::deflated($size, $length, (int) hexdec(hash_final($crc))),
        );
        rewind($packed);
        for ($left = $length; ($chunk = (string) fread($packed, 1 << 18)) !== ''; $left -= strlen($chunk)) {
            $this->put($chunk);
        }
        fclose($packed);
        $left === 0 || throw new \RuntimeException("$name could not be compressed: there is no room to do so.");
    }

    public function finish(): void
    {
        $at = $this->at;
        $length = strlen($this->directory);
        $this->put($this->directory);
        if ($this->count > self::MOST_16 - 1 || $at + $length > self::MOST_32 - 1) {
            $end = $this->at;
            $this->put(pack(
                'VPvvVVPPPP',
                0x06064B50,
                44,
                self::MADE_BY,
                45,
                0,
                0,
                $this->count,
                $this->count,
                $length,
                $at,
            ));
            $this->put(pack('VVPV', 0x07064B50, 0, $end, 1));
        }
        $this->put(pack(
            'VvvvvVVv',
            0x06054B50,
            0,
            0,
            min($this->count, self::MOST_16),
            min($this->count, self::MOST_16),
            min($length, self::MOST_32),
            min($at, self::MOST_32),
            0,
        ));
    }

    private function begin(string $name, int $mode, int $modified, ZippedSize $size): void
    {
        $isText = mb_check_encoding($name, 'UTF-8');
        $flags = $isText ? 0x0800 : 0;
        [$time, $date] = self::asDos($modified);
        // Seconds since 1970 in UTC, beside the old field that knows neither zones nor odd seconds.
        $stamp = pack('vvCV', 0x5455, 5, 1, max(0, min($modified, 0x7FFFFFFF)));
        $isBig = max($size->bytes, $size->inArchive) >= self::MOST_32;
        $sizes = $isBig ? pack('vvPP', 1, 16, $size->bytes, $size->inArchive) : '';
        $isFar = $this->at >= self::MOST_32;
        $places = $isBig || $isFar
            ? pack('vv', 1, ($isBig ? 16 : 0) + ($isFar ? 8 : 0))
                .($isBig ? pack('PP', $size->bytes, $size->inArchive) : '')
                .($isFar ? pack('P', $this->at) : '')
            : '';
        $facts = pack(
            'vvvvvVVVvv',
            45,
            $flags,
            $size->method(),
            $time,
            $date,
            $size->crc,
            $isBig ? self::MOST_32 : $size->inArchive,
            $isBig ? self::MOST_32 : $size->bytes,
            strlen($name),
            strlen($stamp.$sizes),
        );
        $there = pack(
            'VvvvvvvVVVvv',
            0x02014B50,
            self::MADE_BY,
            45,
            $flags,
            $size->method(),
            $time,
            $date,
            $size->crc,
            $isBig ? self::MOST_32 : $size->inArchive,
            $isBig ? self::MOST_32 : $size->bytes,
            strlen($name),
            strlen($stamp.$places),
        );
        $this->directory .= $there.pack(
            'vvvVV',
            0,
            0,
            0,
            $mode << 16,
            min($this->at, self::MOST_32),
        ).$name.$stamp.$places;
        $this->count++;
        $this->put(pack('V', 0x04034B50).$facts.$name.$stamp.$sizes);
    }

    /** @return array{int, int} time and date as MS-DOS has them, in UTC */
    private static function asDos(int $modified): array
    {
        $at = max($modified, 315532800); // It begins in 1980.
        $parts = array_map(intval(...), explode(' ', gmdate('Y n j G i s', $at)));
        [$year, $month, $day, $hour, $minute, $second] = $parts;

        return [$hour << 11 | $minute << 5 | $second >> 1, min($year - 1980, 127) << 9 | $month << 5 | $day];
    }

    private function put(string $bytes): void
    {
        $this->at += strlen($bytes);
        ($this->out)($bytes);
    }
}
