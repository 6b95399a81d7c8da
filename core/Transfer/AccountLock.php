<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Backup\StoreFailure;

/**
 * One run an account at a time, by a lock on a file.
 *
 * The system lets go of it when the last process that has the file open is gone, however it ended; worker processes
 * inherit it, so that no run starts while an orphan of a killed one still writes.
 */
final class AccountLock
{
    /** @param  resource  $stream */
    private function __construct(public readonly mixed $stream)
    {
    }

    /** @return self|null null when another run holds it */
    public static function tryFor(string $directory, string $account): ?self
    {
        if (! is_dir($directory) && ! @mkdir($directory, 0700, true) && ! is_dir($directory)) {
            throw StoreFailure::writing($directory);
        }
        $stream = @fopen("$directory/account-$account.lock", 'c');
        if ($stream === false) {
            throw StoreFailure::writing("$directory/account-$account.lock");
        }
        if (! flock($stream, LOCK_EX | LOCK_NB)) {
            fclose($stream);

            return null;
        }

        return new self($stream);
    }

    public function release(): void
    {
        if (is_resource($this->stream)) {
            fclose($this->stream);
        }
    }
}
