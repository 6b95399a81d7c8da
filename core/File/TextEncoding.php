<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** The encoding of a text in a file's bytes. */
enum TextEncoding: string
{
    case Utf8 = 'utf-8';
    case Utf16Le = 'utf-16le';
    case Utf16Be = 'utf-16be';

    /** ISO 8859-1, with the control characters of its upper half where they stand. */
    case Latin1 = 'latin-1';
    case Windows1252 = 'windows-1252';

    public function label(): string
    {
        return match ($this) {
            self::Utf8 => 'UTF-8',
            self::Utf16Le, self::Utf16Be => 'UTF-16',
            self::Latin1 => 'Latin-1',
            self::Windows1252 => 'Windows-1252',
        };
    }

    /** As mbstring calls it. */
    public function name(): string
    {
        return match ($this) {
            self::Utf8 => 'UTF-8',
            self::Utf16Le => 'UTF-16LE',
            self::Utf16Be => 'UTF-16BE',
            self::Latin1 => 'ISO-8859-1',
            self::Windows1252 => 'Windows-1252',
        };
    }

    /** The byte order mark (Unicode 16.0, 23.8) as bytes. */
    public function mark(): string
    {
        return match ($this) {
            self::Utf8 => "\xef\xbb\xbf",
            self::Utf16Le => "\xff\xfe",
            self::Utf16Be => "\xfe\xff",
            default => '',
        };
    }
}
