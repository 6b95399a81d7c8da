<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/**
 * A pattern of paths: "*" is any part of a name, "**" any number of directories, "?" one letter; what ends in a slash
 * is a directory with all below it.
 */
final readonly class Glob
{
    private string $expression;

    public function __construct(public string $pattern)
    {
        $parts = preg_split(
            '~(\*\*/|\*\*|\*|\?)~',
            rtrim($pattern, '/'),
            -1,
            PREG_SPLIT_DELIM_CAPTURE,
        ) ?: [];
        $expression = '';
        foreach ($parts as $part) {
            $expression .= match ($part) {
                '**/' => '(?:[^/]+/)*+',
                '**' => '.*',
                '*' => '[^/]*',
                '?' => '[^/]',
                default => preg_quote($part, '~'),
            };
        }
        $this->expression = '~\A'.$expression.(str_ends_with($pattern, '/') ? '(?:/.*)?' : '').'\z~us';
    }

    public function matches(string $path): bool
    {
        return preg_match($this->expression, $path) === 1;
    }

    /**
     * @param  list<self>  $globs
     */
    public static function any(array $globs, string $path): bool
    {
        foreach ($globs as $glob) {
            if ($glob->matches($path)) {
                return true;
            }
        }

        return false;
    }
}
