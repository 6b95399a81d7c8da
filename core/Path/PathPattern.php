<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/**
 * A pattern of paths: "*" stands for any characters within one name, "?" for one, "[…]" and "[!…]" for one of those,
 * "**" for any characters at all, and a "**" with a slash behind it for any directories or none. One that ends in a
 * slash means a directory with all below it.
 *
 * A regular expression answers nearly always, and quickly. One that gives up is no answer: then all ways through the
 * pattern are followed side by side, in steps that are bounded by the length of both.
 */
final readonly class PathPattern
{
    private const TOKENS = '#(\*\*/|\*\*|\*|\?|\[!?[^\]/]+\])#';

    /** @var list<array{string, string}> kind and text: "dirs", "all", "name", "one", "set", "is" */
    private array $tokens;

    private bool $isDirectory;

    public function __construct(public string $pattern)
    {
        $this->isDirectory = str_ends_with($pattern, '/');
        $tokens = [];
        foreach (preg_split(self::TOKENS, rtrim($pattern, '/'), flags: PREG_SPLIT_DELIM_CAPTURE) ?: [] as $piece) {
            $kind = match (true) {
                $piece === '**/' => 'dirs',
                $piece === '**' => 'all',
                $piece === '*' => 'name',
                $piece === '?' => 'one',
                strlen($piece) > 2 && $piece[0] === '[' && str_ends_with($piece, ']') => 'set',
                default => 'is',
            };
            if ($kind === 'is') {
                foreach (mb_str_split($piece) as $letter) {
                    $tokens[] = ['is', $letter];
                }
            } else {
                $tokens[] = [$kind, $piece];
            }
        }
        $this->tokens = $tokens;
    }

    /**
     * @param  list<string>  $patterns
     * @return list<self>
     */
    public static function all(array $patterns): array
    {
        return array_map(static fn (string $pattern): self => new self($pattern), $patterns);
    }

    /**
     * The same below a directory, whatever letters its name has.
     *
     * @param  string  $directory  "" is where it stands already
     */
    public function below(string $directory): self
    {
        $literal = (string) preg_replace('/[*?\[]/', '[$0]', $directory);

        return $directory === '' ? $this : new self("$literal/$this->pattern");
    }

    /** What it means as a regular expression, between "#" and with the modifiers "us"; without its beginning. */
    public function expression(): string
    {
        $expression = '';
        foreach ($this->tokens as [$kind, $text]) {
            $expression .= match ($kind) {
                'dirs' => '(?:[^/]+/)*',
                'all' => '.*',
                'name' => '[^/]*',
                'one' => '[^/]',
                'set' => self::setExpression($text),
                default => preg_quote($text, '#'),
            };
        }

        return $expression.($this->isDirectory ? '(?:/|\z)' : '\z');
    }

    public function matches(string $path): bool
    {
        $answer = @preg_match('#\A'.$this->expression().'#us', $path);

        return $answer === false ? $this->followed($path) : $answer === 1;
    }

    /** By following all ways at once; slower, and never without an answer. */
    public function followed(string $path): bool
    {
        $last = count($this->tokens);
        [$at, $within] = $this->passed([0 => true], [], true);
        $before = '/';
        foreach (mb_str_split($path) as $letter) {
            if ($this->isDirectory && isset($at[$last]) && $letter === '/') {
                return true;
            }
            $next = [];
            foreach (array_keys($at) as $state) {
                $next += $this->taken($state, $letter);
            }
            // A name of a directory has a letter at least; its slash leads to where the next one may begin.
            foreach ($letter === '/' ? [] : array_keys($at) as $state) {
                $this->kind($state) === 'dirs' && $within[$state] = true;
            }
            [$at, $within] = $this->passed($next, $within, $letter === '/' && $before !== '/');
            $before = $letter;
        }

        return isset($at[$last]);
    }

    /** @return array<int, true> where a letter leads from a state, but for "dirs" */
    private function taken(int $state, string $letter): array
    {
        $text = $this->tokens[$state][1] ?? '';
        $stays = match ($this->kind($state)) {
            'all' => true,
            'name' => $letter !== '/',
            default => false,
        };
        $goes = match ($this->kind($state)) {
            'one' => $letter !== '/',
            'set' => preg_match('#\A'.self::setExpression($text).'\z#u', $letter) === 1,
            'is' => $letter === $text,
            default => false,
        };

        return ($stays ? [$state => true] : []) + ($goes ? [$state + 1 => true] : []);
    }

    private function kind(int $state): string
    {
        return $this->tokens[$state][0] ?? 'end';
    }

    /**
     * With the states that are reached without a letter.
     *
     * @param  array<int, true>  $states
     * @param  array<int, true>  $within  those of "dirs" that are within the name of a directory
     * @param  bool  $isAtName  whether such a name has just ended
     * @return array{array<int, true>, array<int, true>}
     */
    private function passed(array $states, array $within, bool $isAtName): array
    {
        $open = array_keys($states);
        if ($isAtName) {
            foreach (array_keys($within) as $state) {
                $states[$state] = true;
                $open[] = $state;
            }
            $within = [];
        }
        while (($state = array_pop($open)) !== null) {
            $isPassed = in_array($this->kind($state), ['all', 'name', 'dirs'], true);
            if ($isPassed && ! isset($states[$state + 1])) {
                $states[$state + 1] = true;
                $open[] = $state + 1;
            }
        }

        return [$states, $within];
    }

    private static function setExpression(string $set): string
    {
        $letters = strtr(substr($set, 1, -1), [
            '\\' => '\\\\',
            '^' => '\\^',
            '#' => '\\#',
            '[' => '\\[',
        ]);

        return '(?!/)['.($letters[0] === '!' ? '^'.substr($letters, 1) : $letters).']';
    }
}
