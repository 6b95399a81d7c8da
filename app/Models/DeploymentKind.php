<?php

declare(strict_types=1);

namespace App\Models;

/** The kind of a deployment, by what it brings to the server. */
enum DeploymentKind: string
{
    /** A package. */
    case Deploy = 'deploy';

    /** What a backup held. */
    case RestoreBackup = 'restore_backup';

    /** What was there before another deployment. */
    case Undo = 'undo';

    /** What another deployment set aside. */
    case RestoreFiles = 'restore_files';

    /** Files that a person brought, by themselves or as a working copy. */
    case Files = 'files';

    /** Whether it changes single files and leaves databases alone. */
    public function isByHand(): bool
    {
        return $this === self::Files || $this === self::RestoreFiles;
    }
}
