<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Path\Wildcards;

/** Paths by pattern, looked at in one go, since each of tens of thousands of paths is asked about; see Wildcards. */
final readonly class PathPatterns
{
    private ?string $expression;

    /** @var list<Wildcards> */
    private array $wildcards;

    /** @param  list<string>  $patterns */
    public function __construct(array $patterns)
    {
        $this->wildcards = array_map(static fn (string $pattern): Wildcards => new Wildcards($pattern), $patterns);
        $expressions = array_map(static fn (Wildcards $one): string => $one->expression(), $this->wildcards);
        $this->expression = $patterns === [] ? null : '#\A(?:'.implode('|', $expressions).')#us';
    }

    public function match(string $path): bool
    {
        $answer = $this->expression === null ? 0 : @preg_match($this->expression, $path);
        if ($answer !== false) {
            return $answer === 1;
        }
        // It gave up, which is no answer: what is to be kept would be replaced.
        foreach ($this->wildcards as $one) {
            if ($one->matches($path)) {
                return true;
            }
        }

        return false;
    }
}
