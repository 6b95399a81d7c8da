<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Contents kept once by their SHA-256, whoever they belong to. How and where they lie is the store's own matter: bytes
 * go in and come out.
 */
interface ContentStore
{
    /**
     * What is kept from now on, by this process and those it starts, is not cleared away before this process has ended
     * its work, however long that takes; by then something refers to it.
     *
     * @throws StoreFailure
     */
    public function begin(): void;

    /**
     * Keeps a stream of bytes; what is there already, and as it was, stays.
     *
     * @param  iterable<string>  $chunks
     *
     * @throws StoreFailure nothing is kept then
     */
    public function put(iterable $chunks): StoredContent;

    /**
     * For bytes that come from somewhere that writes them.
     *
     * @throws StoreFailure
     */
    public function incoming(): IncomingContent;

    /**
     * What was kept so far, also by processes that this one started, survives a loss of power when this returns: said
     * before something refers to it.
     *
     * @throws StoreFailure
     */
    public function flush(): void;

    /**
     * Whether it is there, as far as that can be told without reading it.
     *
     * @throws StoreFailure when the store does not answer
     */
    public function has(string $sha256): bool;

    /**
     * Has it count as new to whatever clears away what nothing refers to: said before something old is referred to
     * again.
     *
     * @return bool false where it is not there
     *
     * @throws StoreFailure when the store does not answer
     */
    public function refresh(string $sha256): bool;

    /**
     * Its bytes, to be read once or several times (the stream can be wound back). They are compared with the hash as
     * they are read: the last of them come only when all were right.
     *
     * @return resource
     *
     * @throws StoreFailure at once when it is not there or cannot be opened; out of whatever reads the stream, when it
     *     turns out damaged
     */
    public function read(string $sha256);

    /**
     * Its bytes as a text, for what is small.
     *
     * @param  int<0, max>|null  $bytes  of its beginning; null for all
     *
     * @throws StoreFailure
     */
    public function text(string $sha256, ?int $bytes = null): string;

    /**
     * Reads it and compares hash and size.
     *
     * @param  int|null  $size  in bytes; null where only the hash is known
     * @return bool false where it is missing or damaged
     *
     * @throws StoreFailure when the store does not answer, or the key is not there: nothing is known then
     */
    public function isIntact(string $sha256, ?int $size = null): bool;
}
