<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/**
 * Paths by pattern, looked at in one go, since each of tens of thousands of paths is asked about.
 *
 * A pattern that ends in a slash means a directory with all below it; "*" stands for any characters within one name,
 * "?" for one, "[…]" for one of those.
 */
final readonly class PathPatterns
{
    private ?string $expression;

    /** @param  list<string>  $patterns */
    public function __construct(array $patterns)
    {
        $this->expression = $patterns === []
            ? null
            : '#\A(?:'.implode('|', array_map(self::expression(...), $patterns)).')#s';
    }

    public function match(string $path): bool
    {
        return $this->expression !== null && preg_match($this->expression, $path) === 1;
    }

    private static function expression(string $pattern): string
    {
        $pieces = preg_split(
            '#(\*|\?|\[!?[^\]/]+\])#',
            rtrim($pattern, '/'),
            flags: PREG_SPLIT_DELIM_CAPTURE,
        );
        $expression = '';
        foreach ($pieces === false ? [$pattern] : $pieces as $piece) {
            $expression .= match (true) {
                $piece === '*' => '[^/]*',
                $piece === '?' => '[^/]',
                strlen($piece) > 2 && $piece[0] === '[' => self::oneOf($piece),
                default => preg_quote($piece, '#'),
            };
        }

        return $expression.(str_ends_with($pattern, '/') ? '(?:/|\z)' : '\z');
    }

    private static function oneOf(string $set): string
    {
        $letters = strtr(trim($set, '[]'), ['\\' => '\\\\', '^' => '\\^', '#' => '\\#']);

        return '(?!/)['.($letters[0] === '!' ? '^'.substr($letters, 1) : $letters).']';
    }
}
