<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/**
 * A tar archive (POSIX.1-1988 ustar, with the pax and GNU records for long names), read as a stream.
 *
 * Nothing is known before it is read, so the limits are checked as the bytes come.
 */
final class TarPackage implements Archive
{
    /** Bytes of a header, and what everything else is padded to. */
    public const BLOCK = 512;

    private int $left = 0;

    private int $unpacked = 0;

    /** @param  int  $packed  bytes of the whole file */
    public function __construct(
        private readonly ByteSource $stream,
        private readonly int $packed,
        private readonly string $name,
        private readonly ArchiveLimits $limits,
    ) {
    }

    public function entries(): iterable
    {
        $count = 0;
        $longName = null;
        while (true) {
            $this->skip();
            $header = $this->take(self::BLOCK);
            if ($header === '') {
                throw PackageRefused::because($this->name, RefusalReason::Broken, 'at its end: entries may be missing');
            }
            if (trim($header, "\0") === '') {
                $this->finish();

                return;
            }
            $this->checkSum($header);
            $size = $this->octal(substr($header, 124, 12));
            $kind = $header[156];
            $this->limits->check($this->name, ++$count, $this->unpacked + $size, $this->packed);
            $this->left = (int) (ceil($size / self::BLOCK) * self::BLOCK);
            if ($kind === 'L' || $kind === 'x' || $kind === 'g') {
                $longName = $this->longName($kind, $size) ?? $longName;

                continue;
            }
            $name = $longName ?? $this->shortName($header);
            $longName = null;
            if (! in_array($kind, ["\0", '0', '5'], true)) {
                throw PackageRefused::because($this->name, RefusalReason::Link, $name);
            }
            if (trim($name, './') === '' && ! str_contains($name, '..')) {
                continue;
            }
            yield new ArchiveEntry(
                $count,
                EntryName::parse($this->name, $name),
                $kind === '5',
                $size,
                $this->octal(substr($header, 136, 12)),
                $this->octal(substr($header, 100, 8)) & 07777,
            );
        }
    }

    public function chunks(ArchiveEntry $entry): iterable
    {
        for ($rest = $entry->size; $rest > 0; $rest -= strlen($chunk)) {
            $chunk = $this->take(min($rest, 65536));
            $this->left -= strlen($chunk);
            if ($chunk === '') {
                throw PackageRefused::because($this->name, RefusalReason::Broken, "at $entry->path");
            }
            yield $chunk;
        }
    }

    /**
     * Behind the blocks of zeros that end the archive (POSIX, pax) comes padding; the compressed part has to come to
     * its end too.
     */
    private function finish(): void
    {
        while (($rest = $this->stream->read(65536)) !== '') {
            $this->unpacked += strlen($rest);
            $this->limits->check($this->name, 1, $this->unpacked, $this->packed);
        }
    }

    private function take(int $bytes): string
    {
        $data = $this->stream->read($bytes);
        $this->unpacked += strlen($data);
        $this->limits->check($this->name, 1, $this->unpacked, $this->packed);
        if ($data !== '' && strlen($data) < $bytes) {
            throw PackageRefused::because($this->name, RefusalReason::Broken, 'at its end');
        }

        return $data;
    }

    private function skip(): void
    {
        while ($this->left > 0) {
            $read = strlen($this->take(min($this->left, 65536)));
            if ($read === 0) {
                throw PackageRefused::because($this->name, RefusalReason::Broken, 'at its end');
            }
            $this->left -= $read;
        }
    }

    private function checkSum(string $header): void
    {
        $sum = 0;
        foreach (count_chars(substr_replace($header, '        ', 148, 8), 1) as $byte => $count) {
            $sum += $byte * $count;
        }
        if (
            preg_match('/\A *([0-7]+)[ \0]*\z/', substr($header, 148, 8), $match) !== 1
            || $sum !== (int) octdec($match[1])
        ) {
            throw PackageRefused::because($this->name, RefusalReason::NotAnArchive);
        }
    }

    private function octal(string $field): int
    {
        $digits = trim($field, " \0");

        return preg_match('/\A[0-7]*\z/', $digits) === 1
            ? (int) octdec($digits)
            : throw PackageRefused::because($this->name, RefusalReason::Broken, 'in a header');
    }

    private function shortName(string $header): string
    {
        $prefix = str_starts_with(substr($header, 257, 6), 'ustar') ? rtrim(substr($header, 345, 155), "\0") : '';
        $name = (string) strtok(substr($header, 0, 100)."\0", "\0");

        return $prefix === '' ? $name : "$prefix/$name";
    }

    private function longName(string $kind, int $size): ?string
    {
        if ($size > 65536) {
            throw PackageRefused::because($this->name, RefusalReason::BadName, 'with an overlong record');
        }
        $record = $this->take($size);
        $this->left -= $size;
        if ($kind === 'L') {
            return rtrim($record, "\0");
        }

        return $kind === 'x' && preg_match('/^\d+ path=([^\n]+)$/m', $record, $match) === 1 ? $match[1] : null;
    }
}
