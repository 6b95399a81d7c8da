<?php

declare(strict_types=1);

namespace Cellarium\Core\Account;

enum ControlFault: string
{
    case LoginExists = 'login_exists';
    case Invalid = 'invalid';
    case NoSuchUser = 'no_such_user';
    case Unauthorized = 'unauthorized';
    case Unreachable = 'unreachable';
    case NotUnderstood = 'not_understood';

    public function sentence(): string
    {
        return match ($this) {
            self::LoginExists => 'this login exists already in the account, choose another',
            self::Invalid => 'the host does not take it like this',
            self::NoSuchUser => 'the host knows no such FTP user',
            self::Unauthorized => 'the host does not accept the access token of this account, enter a new one',
            self::Unreachable => 'the control service of the host does not answer, try again in a moment',
            self::NotUnderstood => 'the answer of the host was not understood',
        };
    }
}
