<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** A choice of files of a plan: of one kind of change, those that are questions, or by a part of their path. */
final readonly class PlanFilter
{
    /** @param  string  $name  a part of the path, whatever its case; "" for any */
    public function __construct(
        public ?Change $change = null,
        public bool $questions = false,
        public string $name = '',
    ) {
    }

    public function takesPath(string $path): bool
    {
        return $this->name === ''
            || stripos($path, $this->name) !== false
            || (! $this->isPlain() && mb_stripos($path, $this->name) !== false);
    }

    /** Whether letters other than a to z need not be looked at, which is much quicker. */
    private function isPlain(): bool
    {
        return mb_check_encoding($this->name, 'ASCII');
    }

    /**
     * Whether it takes the item of a line, but for its path, without understanding all of it: within a text JSON
     * writes quotation marks otherwise, so these stand in no name.
     */
    public function takesLine(string $line): bool
    {
        return ($this->change === null || str_contains($line, "\"change\":\"{$this->change->value}\""))
            && (! $this->questions || str_contains($line, '"conflict":"'));
    }
}
