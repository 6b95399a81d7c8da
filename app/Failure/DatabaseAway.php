<?php

declare(strict_types=1);

namespace App\Failure;

/** A database that does not answer: told once a minute in the log, and in words of its own on pages. */
final class DatabaseAway
{
    private const SECONDS_BETWEEN_LINES = 60;

    /**
     * Error numbers of the MariaDB client library: cannot connect, gone away, lost during a query; and by the server:
     * shutting down.
     */
    private const AWAY = [2002, 2006, 2013, 1053, 1927];

    public static function caused(\Throwable $failure): bool
    {
        return $failure instanceof \PDOException
            && in_array((int) ($failure->errorInfo[1] ?? $failure->getCode()), self::AWAY, true);
    }

    /**
     * Does work whose result only shows how something goes on; without the database it is left out, and what goes on
     * goes on.
     *
     * @param  \Closure(): void  $work
     */
    public static function tolerate(\Closure $work): void
    {
        try {
            $work();
        } catch (\PDOException $failure) {
            self::caused($failure) ? self::tell() : throw $failure;
        }
    }

    /** Never with the query in it: a page's first one names its session. */
    public static function tell(): void
    {
        $stamp = storage_path('logs/database-away');
        clearstatcache(true, $stamp);
        if ((int) @filemtime($stamp) < time() - self::SECONDS_BETWEEN_LINES) {
            @touch($stamp);
            logger()->error('The database does not answer. This is said once a minute at the most.');
        }
    }
}
