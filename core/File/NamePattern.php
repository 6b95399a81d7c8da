<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Path\PathPattern;

/** A pattern of names, whatever their capitals: any part of it, or a whole pattern with "*" and "?". */
final readonly class NamePattern
{
    private string $words;

    public function __construct(string $words)
    {
        $this->words = mb_strtolower(trim($words));
    }

    public function fits(string $name): bool
    {
        return match (true) {
            $this->words === '' => true,
            strpbrk($this->words, '*?') !== false => (new PathPattern($this->words))->matches(mb_strtolower($name)),
            default => mb_stripos($name, $this->words) !== false,
        };
    }
}
