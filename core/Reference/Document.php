<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** The references and the marks of one document. */
final class Document
{
    /** @var list<Reference> in the order of the document */
    public array $references = [];

    /** @var array<string, true> names that a fragment may lead to, as keys */
    public array $ids = [];

    /** @var array<string, true> beginnings of names that a script puts together ("step-"), as keys */
    public array $beginnings = [];

    /** Of <base href>, null where there is none. */
    public ?string $base = null;

    /** @var array{string, int}|null the text of <title> and its place; null where there is none */
    public ?array $title = null;

    /** @var list<string> addresses that the page gives as its own: canonical, in previews, for mail */
    public array $ownAddresses = [];

    /** Whether it sends visitors on by itself. */
    public bool $sendsOn = false;

    /** @var list<int>|null */
    private ?array $lines = null;

    public function __construct(private readonly string $text)
    {
    }

    public function add(Reference $reference): void
    {
        $reference->value === '' || $this->references[] = $reference;
    }

    /** @return int the line of a place, from 1 */
    public function line(int $offset): int
    {
        if ($this->lines === null) {
            $this->lines = [];
            for ($at = strpos($this->text, "\n"); $at !== false; $at = strpos($this->text, "\n", $at + 1)) {
                $this->lines[] = $at;
            }
        }
        [$low, $high] = [0, count($this->lines)];
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            $this->lines[$middle] < $offset ? $low = $middle + 1 : $high = $middle;
        }

        return $low + 1;
    }
}
