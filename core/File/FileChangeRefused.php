<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use RuntimeException;

/** A change that was not begun, since the server holds something else than was seen. Nothing was touched. */
final class FileChangeRefused extends RuntimeException
{
    /** @param  ManifestEntry|null  $now  what lies there; null where nothing does */
    private function __construct(
        public readonly FileRefusal $reason,
        public readonly RemotePath $path,
        public readonly ?ManifestEntry $now,
        string $sentence,
    ) {
        parent::__construct($sentence);
    }

    public static function changedMeanwhile(RemotePath $path, ManifestEntry $now): self
    {
        return new self(
            FileRefusal::ChangedMeanwhile,
            $path,
            $now,
            "$path was changed on the server since you looked at it. Nothing was touched. Look at it again.",
        );
    }

    public static function noLongerThere(RemotePath $path): self
    {
        return new self(
            FileRefusal::NoLongerThere,
            $path,
            null,
            "$path is no longer there. Nothing was touched. Look at its directory again.",
        );
    }

    public static function somethingThere(RemotePath $path, ManifestEntry $now): self
    {
        $what = match ($now->kind) {
            EntryKind::File => 'a file',
            EntryKind::Directory => 'a folder',
            default => 'something',
        };

        return new self(
            FileRefusal::SomethingThere,
            $path,
            $now,
            "There is $what called {$path->name()} in {$path->parent()} already. Nothing was touched. "
                .'Choose another name, or set that one aside first.',
        );
    }

    public static function notAFile(RemotePath $path, ManifestEntry $now): self
    {
        $what = match ($now->kind) {
            EntryKind::Directory => 'a folder',
            EntryKind::Link => 'a link to another place',
            default => 'no ordinary file',
        };

        return new self(FileRefusal::NotAFile, $path, $now, "$path is $what. Nothing was touched.");
    }

    public static function intoItself(RemotePath $path, RemotePath $to): self
    {
        return new self(
            FileRefusal::IntoItself,
            $path,
            null,
            "$to lies inside $path, which cannot be moved into itself. Choose another folder.",
        );
    }

    public static function notEmpty(RemotePath $path): self
    {
        return new self(
            FileRefusal::NotEmpty,
            $path,
            null,
            "$path holds something. Nothing was touched. Look into it, and set aside what is in it first.",
        );
    }
}
