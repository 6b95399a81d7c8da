<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/** What a package needs on the host. */
final readonly class Needs
{
    /**
     * @param  string|null  $php  the least version, "8.1"
     * @param  list<string>  $extensions  of PHP
     * @param  int|null  $bytes  free space beside its own files
     */
    public function __construct(
        public ?string $php = null,
        public array $extensions = [],
        public ?int $bytes = null,
    ) {
    }

    public function isNothing(): bool
    {
        return $this->php === null && $this->extensions === [] && $this->bytes === null;
    }

    public function inWords(): string
    {
        return implode(', ', array_filter([
            $this->php === null ? '' : "PHP $this->php or newer",
            $this->extensions === [] ? '' : 'with '.implode(', ', $this->extensions),
        ]));
    }
}
