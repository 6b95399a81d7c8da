<?php

declare(strict_types=1);

namespace App\Models;

/** The kind of an errand, which a page has ordered; the worker that does it is RunErrand. */
enum ErrandKind: string
{
    case FindRoot = 'find_root';
    case ProveRoot = 'prove_root';
    case ProveLive = 'prove_live';
    case AskPhp = 'ask_php';
    case AskOpen = 'ask_open';
    case RestoreDatabase = 'restore_database';
    case RenewPassword = 'renew_password';
    case MakeUser = 'make_user';
    case ChangeUser = 'change_user';
    case CloseUser = 'close_user';
    case LookAtTree = 'look_at_tree';
    case TryAccount = 'try_account';
    case Remove = 'remove';
    case TakePackage = 'take_package';
    case TakeFiles = 'take_files';
    case LookAtFiles = 'look_at_files';
    case OpenFile = 'open_file';
    case FetchFile = 'fetch_file';
    case Download = 'download';
    case AskVisitors = 'ask_visitors';
    case CountFiles = 'count_files';
    case ChangeFiles = 'change_files';
    case FindFiles = 'find_files';
    case CopyElsewhere = 'copy_elsewhere';
    case CheckRights = 'check_rights';
    case MoveAccount = 'move_account';

    /**
     * Whether it can be cancelled once it has begun: it changes nothing at the host, or takes its own trace away again.
     */
    public function onlyLooks(): bool
    {
        return ! in_array($this, [
            self::RenewPassword,
            self::MakeUser,
            self::ChangeUser,
            self::CloseUser,
            self::Remove,
            self::ChangeFiles,
            self::MoveAccount,
            self::RestoreDatabase,
        ], true);
    }

    /** Which workers do it. Closing has one of its own: it waits for no host that keeps the others. */
    public function queue(): string
    {
        return match (true) {
            $this === self::CloseUser => 'closing',
            $this === self::Download => 'downloads',
            $this->isLong() => 'looks',
            default => 'errands',
        };
    }

    /** Whether it may take minutes, so that it must not keep those waiting that take a moment. */
    public function isLong(): bool
    {
        return in_array($this, [
            self::FindFiles,
            self::CheckRights,
            self::CopyElsewhere,
            self::MoveAccount,
            self::ProveLive,
            self::RestoreDatabase,
        ], true);
    }

    /** Whether what comes of it is for the page that waits, and for no later one. */
    public function isTakenHere(): bool
    {
        return $this === self::Download;
    }

    /** What it is waited for, in a sentence. */
    public function waitsFor(): string
    {
        return match ($this) {
            self::TakePackage => 'All of it has arrived. It is hashed, unpacked and looked through; a large one takes '
                .'a minute or two.',
            self::Download => 'The server is asked what lies there. The download begins here by itself once that is '
                .'known.',
            default => 'The server has not answered yet.',
        };
    }

    /** What is going on, for the page that waits for it. */
    public function title(): string
    {
        return match ($this) {
            self::FindRoot => 'Looking for the document root',
            self::ProveRoot => 'Proving the document root',
            self::ProveLive => 'Asking as visitors do',
            self::AskPhp => 'Asking which PHP the site runs',
            self::AskOpen => 'Asking what answers everybody',
            self::RestoreDatabase => 'Backing up, then restoring the database',
            self::RenewPassword => 'Renewing the password',
            self::MakeUser => 'Making the FTP user',
            self::ChangeUser => 'Asking the host about the FTP user',
            self::CloseUser => 'Closing the FTP user',
            self::LookAtTree => 'Looking into the directory',
            self::TryAccount => 'Trying the connection',
            self::Remove => 'Closing FTP users, then removing from Cellarium',
            self::TakePackage => 'Checking the package',
            self::TakeFiles => 'Comparing the files',
            self::LookAtFiles => 'Looking into the folder',
            self::OpenFile => 'Opening the file',
            self::FetchFile => 'Fetching the file',
            self::Download => 'Preparing the download',
            self::AskVisitors => 'Asking what visitors get',
            self::CountFiles => 'Counting what lies in it',
            self::ChangeFiles => 'Changing files',
            self::FindFiles => 'Looking for files',
            self::CheckRights => 'Checking the permissions of the site',
            self::CopyElsewhere => 'Fetching the files for the other site',
            self::MoveAccount => 'Making the account anew at the other host',
        };
    }
}
