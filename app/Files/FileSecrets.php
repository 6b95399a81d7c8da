<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use Cellarium\Core\Package\SensitiveNames;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\People\Permission;
use Illuminate\Support\Facades\Gate;

/** What a file says whose name tells that passwords may stand in it is for those who may see passwords. */
final class FileSecrets
{
    public static function areHidden(RemotePath $file): bool
    {
        return SensitiveNames::isOne(RelativePath::fromString(ltrim($file->toString(), '/')))
            && ! Gate::allows(Permission::SeeSecrets->value);
    }

    /** @throws Problem where they are hidden from whoever looks */
    public static function mayBeSeen(RemotePath $file): void
    {
        self::areHidden($file) && throw new Problem(
            "The name of {$file->name()} says that passwords may stand in it. It is shown to those who may see them.",
        );
    }
}
