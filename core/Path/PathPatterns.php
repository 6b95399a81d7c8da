<?php

declare(strict_types=1);

namespace Cellarium\Core\Path;

/** Several patterns that are asked in one go, since each of tens of thousands of paths is asked about. */
final readonly class PathPatterns
{
    private ?string $expression;

    /** @param  list<PathPattern>  $patterns */
    public function __construct(private array $patterns)
    {
        $expressions = array_map(static fn (PathPattern $one): string => $one->expression(), $patterns);
        $this->expression = $patterns === [] ? null : '#\A(?:'.implode('|', $expressions).')#us';
    }

    public function match(string $path): bool
    {
        $answer = $this->expression === null ? 0 : @preg_match($this->expression, $path);
        if ($answer !== false) {
            return $answer === 1;
        }
        // It gave up, which is no answer: what is to be kept would be replaced.
        foreach ($this->patterns as $one) {
            if ($one->matches($path)) {
                return true;
            }
        }

        return false;
    }
}
