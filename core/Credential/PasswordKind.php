<?php

declare(strict_types=1);

namespace Cellarium\Core\Credential;

/** Two kinds of passwords that are made, each worth more than eighty bits. */
enum PasswordKind: string
{
    /** Four groups of four, to be read out over the telephone. */
    case Readable = 'readable';

    /** Twenty signs, for programs and password stores. */
    case Random = 'random';

    /** Signs to choose from; without 0, O, 1, l and I, and only such that every FTP server and URI takes. */
    public function alphabet(): string
    {
        $plain = '23456789abcdefghijkmnpqrstuvwxyzABCDEFGHJKLMNPQRSTUVWXYZ';

        return $this === self::Readable ? $plain : $plain.'-._~';
    }

    public function length(): int
    {
        return $this === self::Readable ? 16 : 20;
    }

    /** @return int<1, max>|null  signs between two hyphens; null for none */
    public function group(): ?int
    {
        return $this === self::Readable ? 4 : null;
    }
}
