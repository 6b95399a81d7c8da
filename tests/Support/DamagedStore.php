<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\IncomingContent;
use Cellarium\Core\Storage\StoredContent;

/** A store on a disk that loses what it is given: nothing in it can be read back as it was. */
final readonly class DamagedStore implements ContentStore
{
    public function __construct(private ContentStore $inner)
    {
    }

    public function begin(): void
    {
        $this->inner->begin();
    }

    public function put(iterable $chunks): StoredContent
    {
        return $this->inner->put($chunks);
    }

    public function incoming(): IncomingContent
    {
        return $this->inner->incoming();
    }

    public function flush(): void
    {
        $this->inner->flush();
    }

    public function has(string $sha256): bool
    {
        return $this->inner->has($sha256);
    }

    public function refresh(string $sha256): bool
    {
        return $this->inner->refresh($sha256);
    }

    public function read(string $sha256)
    {
        return $this->inner->read($sha256);
    }

    public function text(string $sha256, ?int $bytes = null): string
    {
        return $this->inner->text($sha256, $bytes);
    }

    public function isIntact(string $sha256, ?int $size = null): bool
    {
        return false;
    }
}
