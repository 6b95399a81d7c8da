<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Deployment\RunEnd;

/** The subject of a line of the record. */
enum RecordKind: string
{
    case AddressOpen = 'address_open';

    case AddressClosed = 'address_closed';

    case AccountAdded = 'account_added';

    case AccountChanged = 'account_changed';

    case AccountConnected = 'account_connected';

    case BackupQuestioned = 'backup_questioned';

    case BackupCancelled = 'backup_cancelled';

    case BackupFailed = 'backup_failed';

    case BackupTaken = 'backup_taken';

    case BackupsStarted = 'backups_started';

    case BackupsExpired = 'backups_expired';

    case BackupPinned = 'backup_pinned';

    case BackupUnpinned = 'backup_unpinned';

    case BackupRehearsed = 'backup_rehearsed';

    case BackupRuleSaved = 'backup_rule_saved';

    case ContentsDamaged = 'contents_damaged';

    case ContentsMended = 'contents_mended';

    case Cleaned = 'cleaned';

    case ClientChanged = 'client_changed';

    case FilesChanged = 'files_changed';

    case FilesDownloaded = 'files_downloaded';

    case FilesNotChanged = 'files_not_changed';

    case ConnectingCancelled = 'connecting_cancelled';

    case DeploymentCancelled = 'deployment_cancelled';

    case DeploymentProven = 'deployment_proven';

    case DeploymentPutBack = 'deployment_put_back';

    case DeploymentPutBackUnproven = 'deployment_put_back_unproven';

    case DeploymentReasoned = 'deployment_reasoned';

    case DeploymentRefused = 'deployment_refused';

    case DeploymentStarted = 'deployment_started';

    case DeploymentTakenUp = 'deployment_taken_up';

    case DeploymentUnfinished = 'deployment_unfinished';

    case DestinationRemoved = 'destination_removed';

    case DestinationSaved = 'destination_saved';

    case DirectoryMade = 'directory_made';

    case DocumentRootProven = 'document_root_proven';
    case PhpAsked = 'php_asked';

    case FoundChanged = 'found_changed';

    case FtpUserAsked = 'ftp_user_asked';

    case FtpUserChanged = 'ftp_user_changed';

    case FtpUserClosed = 'ftp_user_closed';

    case FtpUserFound = 'ftp_user_found';

    case FtpUserProven = 'ftp_user_proven';

    case FtpUserRemoved = 'ftp_user_removed';

    case FtpUsersChanged = 'ftp_users_changed';

    case HandedOver = 'handed_over';

    case KeysChanged = 'keys_changed';

    case ListExported = 'list_exported';

    case ListImported = 'list_imported';

    case InspectionOverruled = 'inspection_overruled';

    case UploadCorrected = 'upload_corrected';

    case ListingAccepted = 'listing_accepted';

    case TokenMade = 'token_made';

    case TokenRevoked = 'token_revoked';

    case PackageAdded = 'package_added';

    case PackageLetGo = 'package_let_go';

    case PackageMended = 'package_mended';

    case PackageTypeRemoved = 'package_type_removed';

    case PackageTypeSaved = 'package_type_saved';

    case PackageTypeSaid = 'package_type_said';
    case PackageNamed = 'package_named';

    case PackageRefused = 'package_refused';

    case PasswordRenewed = 'password_renewed';

    case PlanMade = 'plan_made';

    case PlanAnswered = 'plan_answered';

    case DeploymentPaused = 'deployment_paused';

    case DeploymentContinued = 'deployment_continued';

    case RetryStarted = 'retry_started';

    case PersonInvited = 'person_invited';

    case PersonChanged = 'person_changed';

    case PersonClosed = 'person_closed';

    case PersonOpened = 'person_opened';

    case PersonPasswordRenewed = 'person_password_renewed';

    case PasswordChosen = 'password_chosen';

    case SecondFactorSet = 'second_factor_set';

    case SecondFactorDropped = 'second_factor_dropped';

    case RecoveryCodeUsed = 'recovery_code_used';

    case SheetMade = 'sheet_made';

    case SheetLinked = 'sheet_linked';

    case SheetOpened = 'sheet_opened';

    case SheetWithdrawn = 'sheet_withdrawn';

    case SelfSaved = 'self_saved';

    case SelfRehearsed = 'self_rehearsed';

    case SelfRestored = 'self_restored';

    case SessionsEnded = 'sessions_ended';

    case Asked = 'asked';

    case Answered = 'answered';

    case BackupDownloaded = 'backup_downloaded';

    case DatabaseRestored = 'database_restored';

    case Removed = 'removed';

    case RemovalUndone = 'removal_undone';

    case SignInRefused = 'sign_in_refused';

    case SignedIn = 'signed_in';

    case SignedOut = 'signed_out';

    case SiteAdded = 'site_added';

    case SiteMoved = 'site_moved';

    case SiteChanged = 'site_changed';

    case WitnessesAccepted = 'witnesses_accepted';

    public static function fromRunEnd(RunEnd $end): self
    {
        return self::from("deployment_$end->value");
    }
}
