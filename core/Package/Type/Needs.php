<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/** Requirements of a package on the host. */
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

    /** Whether PHP has something to do with it. */
    public function areOfPhp(): bool
    {
        return $this->php !== null || $this->extensions !== [];
    }

    /**
     * What a site lacks of it, in words; null where it has all.
     *
     * @param  string|null  $version  of the PHP it runs; null where it runs none
     * @param  list<string>  $extensions  lower case
     */
    public function lacking(?string $version, array $extensions): ?string
    {
        $missing = array_values(array_diff($this->extensions, $extensions));

        return match (true) {
            ! $this->areOfPhp() => null,
            $version === null => 'the site runs no PHP, and '.$this->inWords().' is needed',
            $this->php !== null && version_compare($version, $this->php, '<') => "the site runs PHP $version, and "
                ."$this->php or newer is needed",
            $missing !== [] => "the PHP $version of the site lacks ".implode(', ', $missing),
            default => null,
        };
    }

    public function inWords(): string
    {
        return implode(', ', array_filter([
            $this->php === null ? '' : "PHP $this->php or newer",
            $this->extensions === [] ? '' : 'with '.implode(', ', $this->extensions),
        ]));
    }
}
