<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use RuntimeException;

/** A file that cannot be edited as text, or a text that cannot be written as the file was. */
final class NotText extends RuntimeException
{
    public static function becauseOfBytes(): self
    {
        return new self('This file is no plain text: it holds bytes that stand for no characters.');
    }

    public static function tooLarge(int $bytes, int $most): self
    {
        return new self(sprintf(
            'This file has %.1f MB; what is over %.0f MB is not edited here. Download it instead.',
            $bytes / 1e6,
            $most / 1e6,
        ));
    }

    /** @param  string  $character  the first that has no place in the encoding */
    public static function notIn(TextEncoding $encoding, string $character, int $line): self
    {
        return new self(
            "Line $line has “{$character}”, which {$encoding->label()} cannot hold, and this file is written in that. "
                .'Write it otherwise (in HTML as &#'.mb_ord($character, 'UTF-8').';), or have the file changed as a '
                .'whole.',
        );
    }
}
