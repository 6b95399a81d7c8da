<?php

declare(strict_types=1);

namespace App\Storage;

use App\Failure\Problem;
use Cellarium\Core\Storage\DiskObjects;
use Cellarium\Core\Storage\Mark;
use Cellarium\Core\Storage\StoredObjects;
use Cellarium\Core\Storage\StoreFailure;

/**
 * The identity of this installation, and whether the directories and the store it finds are its own. The identity
 * stands in the settings: the database may be away as well.
 */
final class Installation
{
    /** Below the directory for data: each may be a mount of its own. */
    private const DIRECTORIES = ['contents', 'backups', 'manifests', 'runs', 'keys'];

    /** @return list<string> */
    public static function directories(): array
    {
        $var = (string) config('cellarium.var');

        return [$var, ...array_map(static fn (string $name): string => "$var/$name", self::DIRECTORIES)];
    }

    /** Null for an installation that is older than marks, and was not started since. */
    public static function mark(): ?Mark
    {
        $identity = (string) config('cellarium.identity');
        try {
            return $identity === '' ? null : Mark::fromIdentity($identity);
        } catch (\UnexpectedValueException $wrong) {
            throw new Problem("CELLARIUM_IDENTITY in .env is none: {$wrong->getMessage()} Put back the one that was.");
        }
    }

    /** @throws StoreFailure where a directory is not this installation's */
    public static function check(): void
    {
        self::mark()?->mustBeIn(self::directories());
    }

    /**
     * Before anything is removed: the directories and the store itself, wherever it is.
     *
     * @throws StoreFailure|Problem
     */
    public static function mustBeOurs(StoredObjects $objects): void
    {
        $mark = self::mark() ?? throw new Problem(
            'This installation has no identity yet, so nothing is removed. Start it once by ./start, which gives it '
                .'one.',
        );
        $mark->mustBeIn(self::directories());
        $objects->mustHave($mark);
    }

    /**
     * What came back from a backup of Cellarium itself is this installation again. A store that was copied beside it
     * has the mark already; an empty one gets it.
     *
     * @throws StoreFailure where something lies in the store and it has another mark
     */
    public static function return(Mark $mark, StoredObjects $objects): void
    {
        foreach ($objects->sizes() as $ignored) {
            $objects->mustHave($mark);

            break;
        }
        self::lay($mark, $objects);
    }

    /** Gives every directory, and the store, the mark of this installation. */
    public static function lay(Mark $mark, StoredObjects $objects): void
    {
        foreach (self::directories() as $directory) {
            DiskObjects::make($directory);
            $mark->putInto($directory);
        }
        $objects->take($mark);
    }
}
