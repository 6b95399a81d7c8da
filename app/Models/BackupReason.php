<?php

declare(strict_types=1);

namespace App\Models;

/** Why a backup was taken. */
enum BackupReason: string
{
    case OnDemand = 'on_demand';

    case Scheduled = 'scheduled';

    case BeforeDeploy = 'before_deploy';

    case BeforeRestoreBackup = 'before_restore_backup';

    case BeforeUndo = 'before_undo';

    case BeforeRestoreFiles = 'before_restore_files';

    case BeforeFiles = 'before_files';

    case BeforeRestoreDatabase = 'before_restore_database';

    public static function before(DeploymentKind $kind): self
    {
        return self::from("before_$kind->value");
    }

    /** Whether single files were changed by hand after it. */
    public function isOfSmallChange(): bool
    {
        return $this === self::BeforeFiles || $this === self::BeforeRestoreFiles;
    }
}
