<?php

declare(strict_types=1);

namespace Cellarium\Core\Credential;

/** Words that people take for passwords, the most common first. */
final readonly class CommonWords
{
    public const SHIPPED = __DIR__.'/common-words.txt';

    /** @param  array<string, int>  $ranks  from 1, by word in small letters */
    private function __construct(private array $ranks)
    {
    }

    /** @param  string  $text  words between blanks and line ends */
    public static function fromText(string $text): self
    {
        $ranks = [];
        foreach (preg_split('/\s+/', mb_strtolower($text), -1, PREG_SPLIT_NO_EMPTY) ?: [] as $at => $word) {
            $ranks[$word] ??= $at + 1;
        }

        return new self($ranks);
    }

    /** @param  list<string>  $own  what anybody would try first: names of the client, the login, the domain */
    public function startingWith(array $own): self
    {
        $first = [];
        foreach ($own as $text) {
            foreach (preg_split('/[^\p{L}\p{N}]+/u', mb_strtolower($text), -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
                mb_strlen($word) < 3 || $first[$word] = 1;
            }
            $whole = (string) preg_replace('/[^\p{L}\p{N}]+/u', '', mb_strtolower($text));
            mb_strlen($whole) < 3 || $first[$whole] = 1;
        }

        return new self($first + $this->ranks);
    }

    /** From 1 for the most common; null for no word. */
    public function rank(#[\SensitiveParameter] string $word): ?int
    {
        return $this->ranks[$word] ?? null;
    }
}
