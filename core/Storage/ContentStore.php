<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** Contents kept once by their SHA-256, whoever they belong to. */
interface ContentStore
{
    /**
     * Keeps a stream of bytes; what is there already stays.
     *
     * @param  iterable<string>  $chunks
     *
     * @throws StoreFailure nothing is kept then
     */
    public function put(iterable $chunks): StoredContent;

    /**
     * Takes over a file of ours under its hash; the file is gone afterwards.
     *
     * @throws StoreFailure
     */
    public function adopt(string $file): StoredContent;

    public function has(string $sha256): bool;

    /**
     * A local file that holds the contents, to be read only.
     *
     * @throws StoreFailure when it is not there
     */
    public function file(string $sha256): string;

    /** Reads the contents back and hashes them. */
    public function isIntact(string $sha256, int $size): bool;

    /** A new file name on the same disk, for contents on their way in. */
    public function incoming(): string;
}
