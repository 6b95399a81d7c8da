<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/** Sealed contents, each under its SHA-256: a disk of this machine, or a store that speaks S3. */
interface StoredObjects
{
    /**
     * A new file name on a disk of this machine, for what is on its way in.
     *
     * @throws StoreFailure
     */
    public function incoming(): string;

    /**
     * Takes over a file under a name; what had that name is replaced. It is kept for good when
     * this returns, or, where many are published, when flush() does.
     *
     * @throws StoreFailure the file may still be there
     */
    public function publish(string $file, string $name): void;

    /**
     * What has been published so far, also by other processes, is kept for good when this returns.
     *
     * @throws StoreFailure
     */
    public function flush(): void;

    /** @throws StoreFailure when the store does not answer */
    public function has(string $name): bool;

    /**
     * Has it count as published just now.
     *
     * @return bool false where it is not there
     *
     * @throws StoreFailure when the store does not answer
     */
    public function refresh(string $name): bool;

    /**
     * @return resource
     *
     * @throws StoreFailure missing, or the store does not answer
     */
    public function open(string $name);

    /** Whether it is there, and has been neither published nor refreshed since a moment in seconds since 1970. */
    public function isUntouched(string $name, int $before): bool;

    /**
     * Moves aside what has not been published or refreshed since. It is read there as before; refresh() has it back.
     * Killed in between, nothing is lost.
     *
     * @param  int  $before  seconds since 1970
     * @return int|null bytes that were moved; null where it stays
     *
     * @throws StoreFailure when the store does not answer
     */
    public function moveAside(string $name, int $before): ?int;

    /**
     * @return iterable<string, AsideContent> by names, in their order
     *
     * @throws StoreFailure when the store does not answer
     */
    public function inAside(): iterable;

    /**
     * Deletes what lies aside, for good.
     *
     * @return int bytes that were freed; 0 where it was not there any more
     *
     * @throws StoreFailure when the store does not answer
     */
    public function deleteAside(string $name): int;

    /**
     * Puts in order what was being moved when a process was killed.
     *
     * @throws StoreFailure
     */
    public function settle(): void;

    /**
     * @param  string  $from  the first name that is wanted, or the beginning of it
     * @return iterable<string, int> sealed sizes in bytes by names, in the order of the names
     *
     * @throws StoreFailure when the store does not answer
     */
    public function sizes(string $from = ''): iterable;

    /**
     * @throws StoreFailure where what lies there has another mark or none, or the store does not answer
     */
    public function mustHave(Mark $mark): void;

    /**
     * Has it bear the mark of an installation from now on.
     *
     * @throws StoreFailure
     */
    public function take(Mark $mark): void;

    /** Bytes that can still be stored; null where nobody can say. */
    public function room(): ?int;
}
