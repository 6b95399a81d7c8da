<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Path\RemotePath;

/** The change wanted of an FTP user; null leaves a thing as it is. */
final readonly class UserChange
{
    /** @param  int|null  $spaceLimit  bytes; counts only where $setsSpace, null then for no limit */
    public function __construct(
        public ?Secret $password = null,
        public ?RemotePath $directory = null,
        public bool $setsSpace = false,
        public ?int $spaceLimit = null,
        public ?bool $open = null,
    ) {
    }

    /** @return array<string, mixed> as the control protocol has it; the password is readable in it */
    public function reveal(): array
    {
        return array_filter(
            [
                'password' => $this->password?->reveal(),
                'directory' => $this->directory?->toString(),
                'open' => $this->open,
            ],
            static fn (mixed $value): bool => $value !== null,
        ) + ($this->setsSpace ? ['space_limit' => $this->spaceLimit] : []);
    }
}
