<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** The target of a reference within its site, or its fault. */
final readonly class ResolvedReference
{
    /**
     * @param  string|null  $target  the file it leads to, below the root; null where it leads to none
     * @param  string|null  $fragment  the place in it that is asked for
     * @param  string|null  $suggestion  the path it may have meant
     * @param  string|null  $host  where it leads elsewhere
     */
    public function __construct(
        public ?Fault $fault = null,
        public ?string $target = null,
        public ?string $fragment = null,
        public ?string $suggestion = null,
        public ?string $host = null,
    ) {
    }

    /** The same, where the root of the site lies in a directory. */
    public function below(string $directory): self
    {
        return new self(
            $this->fault,
            $this->target === null ? null : "$directory/$this->target",
            $this->fragment,
            $this->suggestion === null ? null : "$directory/$this->suggestion",
            $this->host,
        );
    }
}
