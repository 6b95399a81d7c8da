<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

/** Reasons for a login to stand out among all, the gravest first. */
enum Flag: string
{
    case WholeAccount = 'whole_account';
    case TwoClients = 'two_clients';
    case SeveralSites = 'several_sites';
    case ScriptsInUploads = 'scripts_in_uploads';
    case Overdue = 'overdue';
    case NotProven = 'not_proven';
    case NoEnd = 'no_end';
    case Idle = 'idle';

    public function label(): string
    {
        return match ($this) {
            self::WholeAccount => 'whole account',
            self::TwoClients => 'two clients',
            self::SeveralSites => 'several sites',
            self::ScriptsInUploads => 'scripts in uploads',
            self::Overdue => 'past its time',
            self::NotProven => 'not proven',
            self::NoEnd => 'never closes',
            self::Idle => 'idle',
        };
    }

    public function sentence(): string
    {
        return match ($this) {
            self::WholeAccount => 'It reaches everything in the account, mail and logs with it.',
            self::TwoClients => 'It reaches sites of more than one client.',
            self::SeveralSites => 'It reaches more than one site.',
            self::ScriptsInUploads => 'It reaches an upload folder in which scripts lie; uploads are for pictures and '
                .'documents.',
            self::Overdue => 'It should have closed already.',
            self::NotProven => 'What it reaches was not proven, or no longer holds.',
            self::NoEnd => 'It closes by nothing but a person.',
            self::Idle => 'Nobody has used it for a while.',
        };
    }
}
