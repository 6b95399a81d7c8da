<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

enum ControlFault: string
{
    case LoginExists = 'login_exists';
    case Invalid = 'invalid';
    case NoSuchUser = 'no_such_user';
    case NoSuchJob = 'no_such_job';
    case NotOffered = 'not_found';
    case TooMany = 'too_many';
    case Failed = 'failed';
    case Unauthorized = 'unauthorized';
    case Unreachable = 'unreachable';
    case NotUnderstood = 'not_understood';

    /** Whether it is sure that nothing was changed; otherwise the host has to be asked what became of it. */
    public function isCertain(): bool
    {
        return $this !== self::Unreachable && $this !== self::NotUnderstood;
    }

    public function sentence(): string
    {
        return match ($this) {
            self::LoginExists => 'this login exists already in the account, choose another',
            self::Invalid => 'the host does not take it like this',
            self::NoSuchUser => 'the host knows no such FTP user',
            self::NoSuchJob => 'the host knows nothing of this job any more',
            self::NotOffered => 'the host offers nothing of the kind',
            self::TooMany => 'the host makes no more FTP users in this account, remove one that is closed',
            self::Failed => 'something went wrong at the host, and it says that nothing was changed',
            self::Unauthorized => 'the host does not accept the access token of this account, enter a new one',
            self::Unreachable => 'the control service of the host does not answer, try again in a moment',
            self::NotUnderstood => 'the answer of the host was not understood',
        };
    }
}
