<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** A line of a letter; marks of quotations, lists and numbering are blanked out, so that places stay. */
final readonly class LetterLine
{
    public string $text;

    public bool $isQuoted;

    /**
     * @param  int  $offset  bytes of the letter before it
     * @param  bool  $isAside  whether it is a subject, a signature or small print
     */
    public function __construct(
        string $line,
        public int $offset,
        public bool $isAside,
    ) {
        $blank = self::blank(...);
        $this->isQuoted = preg_match('/\A\s*>/', $line) === 1;
        $text = (string) preg_replace_callback('/\A(?:\s*>)+/', $blank, $line);
        $text = (string) preg_replace_callback('/\A\s*(?:[*•·#+–-]|\d{1,2}[.)])(?=[ \t])/u', $blank, $text);
        // Of what nobody sees, places of bytes stay and words come together again.
        $this->text = (string) preg_replace_callback('/\A\x{FEFF}/u', $blank, $text);
    }

    /** @param  array<array-key, string>  $match */
    private static function blank(array $match): string
    {
        return str_repeat(' ', strlen($match[0]));
    }

    public function isWeak(): bool
    {
        return $this->isQuoted || $this->isAside;
    }

    public function penalty(): float
    {
        return $this->isWeak() ? 4.0 : 0.0;
    }

    /** @return list<array{string, int}> cells with where they begin, parted by tabs, bars or gaps */
    public function cells(): array
    {
        $cells = [];
        preg_match_all('/[^\t|]+?(?=\t|\||[ ]{2,}|\z)/', $this->text, $matches, PREG_OFFSET_CAPTURE);
        foreach ($matches[0] as [$cell, $at]) {
            $lead = strlen($cell) - strlen(ltrim($cell));
            trim($cell) === '' ?: $cells[] = [trim($cell), $at + $lead];
        }

        return $cells;
    }
}
