<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** A way to replace the files of a document root. */
enum Way: string
{
    case FileByFile = 'file_by_file';
    case Swap = 'swap';
    case Unpack = 'unpack';

    public function label(): string
    {
        return match ($this) {
            self::FileByFile => 'File by file',
            self::Swap => 'Swap the directory',
            self::Unpack => 'Unpack at the host, then swap',
        };
    }

    /** What doing it is called within a sentence. */
    public function verb(): string
    {
        return match ($this) {
            self::FileByFile => 'file by file',
            self::Swap => 'swapping',
            self::Unpack => 'unpacking at the host',
        };
    }

    /** What it does, in one sentence. */
    public function sentence(): string
    {
        return match ($this) {
            self::FileByFile => 'Each file is sent beside the one it replaces, then all get their names in order.',
            self::Swap => 'A whole tree is laid beside the document root, then two names change.',
            self::Unpack => 'One archive goes up, the host unpacks it beside the document root, then two names change.',
        };
    }

    /** Whether a whole tree lies beside the document root before visitors see any of it. */
    public function laysTree(): bool
    {
        return $this !== self::FileByFile;
    }
}
