<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

/** A database as it was written out at the host, in the store. */
final readonly class TakenDatabase
{
    /** @param  int  $bytes  of the statements that make it anew */
    public function __construct(
        public string $name,
        public string $sha256,
        public int $bytes,
    ) {
    }

    /** @return array{name: string, sha256: string, bytes: int} */
    public function toArray(): array
    {
        return ['name' => $this->name, 'sha256' => $this->sha256, 'bytes' => $this->bytes];
    }
}
