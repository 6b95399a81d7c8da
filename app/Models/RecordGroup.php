<?php

declare(strict_types=1);

namespace App\Models;

/** Groups of lines that the record is filtered by. */
enum RecordGroup: string
{
    case Deployments = 'deployments';
    case Files = 'files';
    case Backups = 'backups';
    case FtpUsers = 'ftp_users';
    case Accounts = 'accounts';
    case Connections = 'connections';
    case Packages = 'packages';
    case People = 'people';
    case Cellarium = 'cellarium';

    public function label(): string
    {
        return match ($this) {
            self::Deployments => 'Deployments and plans',
            self::Files => 'Files by hand',
            self::Backups => 'Backups',
            self::FtpUsers => 'FTP users and settings handed over',
            self::Accounts => 'Clients, accounts and sites',
            self::Connections => 'Connections',
            self::Packages => 'Packages',
            self::People => 'People and sign-ins',
            self::Cellarium => 'Cellarium itself',
        };
    }

    /** @return list<RecordKind> */
    public function kinds(): array
    {
        return array_values(array_filter(
            RecordKind::cases(),
            fn (RecordKind $kind): bool => self::forKind($kind) === $this,
        ));
    }

    public static function forKind(RecordKind $kind): self
    {
        return match ($kind) {
            RecordKind::AccountConnected, RecordKind::ConnectingCancelled => self::Connections,
            RecordKind::DeploymentCancelled, RecordKind::DeploymentProven, RecordKind::DeploymentPutBack,
            RecordKind::DeploymentPutBackUnproven, RecordKind::DeploymentReasoned, RecordKind::DeploymentRefused,
            RecordKind::DeploymentStarted, RecordKind::DeploymentTakenUp, RecordKind::DeploymentUnfinished,
            RecordKind::DeploymentPaused, RecordKind::DeploymentContinued, RecordKind::RetryStarted,
            RecordKind::PlanMade, RecordKind::PlanAnswered, RecordKind::InspectionOverruled,
            RecordKind::UploadCorrected, RecordKind::ListingAccepted, RecordKind::AddressOpen,
            RecordKind::AddressClosed, RecordKind::DestinationRemoved, RecordKind::DestinationSaved,
            RecordKind::SheetMade, RecordKind::SheetLinked, RecordKind::SheetOpened,
            RecordKind::SheetWithdrawn => self::Deployments,
            RecordKind::FilesChanged, RecordKind::FilesDownloaded, RecordKind::FilesNotChanged,
            RecordKind::DirectoryMade => self::Files,
            RecordKind::BackupQuestioned, RecordKind::BackupCancelled, RecordKind::BackupFailed,
            RecordKind::BackupTaken, RecordKind::BackupsStarted, RecordKind::BackupsExpired,
            RecordKind::BackupPinned, RecordKind::BackupUnpinned, RecordKind::BackupRehearsed,
            RecordKind::BackupRuleSaved, RecordKind::BackupDownloaded,
            RecordKind::DatabaseRestored, RecordKind::ContentsDamaged,
            RecordKind::ContentsMended => self::Backups,
            RecordKind::FoundChanged, RecordKind::FtpUserAsked, RecordKind::FtpUserChanged,
            RecordKind::FtpUserClosed, RecordKind::FtpUserFound, RecordKind::FtpUserProven,
            RecordKind::FtpUserRemoved, RecordKind::FtpUsersChanged, RecordKind::HandedOver,
            RecordKind::PasswordRenewed => self::FtpUsers,
            RecordKind::PackageAdded, RecordKind::PackageLetGo, RecordKind::PackageMended,
            RecordKind::PackageTypeRemoved, RecordKind::PackageTypeSaved, RecordKind::PackageTypeSaid,
            RecordKind::PackageNamed, RecordKind::PackageRefused => self::Packages,
            RecordKind::TokenMade, RecordKind::TokenRevoked, RecordKind::PersonInvited, RecordKind::PersonChanged,
            RecordKind::PersonClosed, RecordKind::PersonOpened, RecordKind::PersonPasswordRenewed,
            RecordKind::PasswordChosen, RecordKind::SecondFactorSet, RecordKind::SecondFactorDropped,
            RecordKind::RecoveryCodeUsed, RecordKind::SessionsEnded, RecordKind::SignInRefused,
            RecordKind::SignedIn, RecordKind::SignedOut => self::People,
            RecordKind::Cleaned, RecordKind::KeysChanged, RecordKind::SelfSaved, RecordKind::SelfRehearsed,
            RecordKind::SelfRestored, RecordKind::WitnessesAccepted => self::Cellarium,
            default => self::Accounts,
        };
    }
}
