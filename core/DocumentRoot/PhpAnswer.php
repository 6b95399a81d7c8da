<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

/** The PHP that a site runs, as the site itself says. */
final readonly class PhpAnswer
{
    /**
     * @param  string|null  $version  "8.2.7"; null where it runs none, or did not say
     * @param  list<string>  $extensions  lower case, ordered
     * @param  string|null  $trouble  why it is not known; null where it is, or where the site runs no PHP
     */
    public function __construct(
        public ?string $version,
        public array $extensions = [],
        public ?string $trouble = null,
    ) {
    }
}
