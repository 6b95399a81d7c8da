<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** Places in a text where something else is written; every other byte stays as it was. */
final class Splices
{
    /** @var array<int, array{int, string}> by offset: how many bytes go, and what comes instead */
    private array $instead = [];

    public function has(int $offset): bool
    {
        return isset($this->instead[$offset]);
    }

    public function isEmpty(): bool
    {
        return $this->instead === [];
    }

    public function write(Reference $reference, string $written): void
    {
        $this->instead[$reference->offset] = [$reference->length, $written];
    }

    public function applied(string $text): string
    {
        krsort($this->instead);
        foreach ($this->instead as $offset => [$length, $written]) {
            $text = substr_replace($text, $written, $offset, $length);
        }

        return $text;
    }
}
