<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/** The page by which a system is set up: until that is done, it answers whoever comes. */
final readonly class SetupPage
{
    /**
     * @param  string  $address  "/setup.php", from where the package goes
     * @param  string|null  $says  part of what it says while nobody has set it up; null where it answers only then
     */
    public function __construct(public string $address, public ?string $says)
    {
    }
}
