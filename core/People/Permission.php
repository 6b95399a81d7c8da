<?php

declare(strict_types=1);

namespace Cellarium\Core\People;

/** A right of a person. The value is the name of the gate in front of a route. */
enum Permission: string
{
    /** Their own settings, sign-ins and second factor. */
    case OwnSettings = 'own-settings';

    /** Sites, proofs, backups, who can touch them and what was done: of all clients, or of the one they belong to. */
    case LookAtSites = 'look-at-sites';

    /** A backup as a file. Of a client's person it is granted one by one. */
    case FetchBackups = 'fetch-backups';

    /** Asking the agency for a change or an FTP user. */
    case Ask = 'ask';

    /** The pages of the agency: all accounts, concerns, packages, deployments. */
    case LookAtAgency = 'look-at-agency';

    /** Daily work: deploy, back up, restore, bring packages, prove, create and close FTP users. */
    case Work = 'work';

    /** Passwords and links to them. */
    case SeeSecrets = 'see-secrets';

    /** What the inspection held back is sent all the same, with a reason. */
    case OverruleInspection = 'overrule-inspection';

    /** Accounts, clients and sites are added, changed, exported, removed. */
    case ChangeAccounts = 'change-accounts';

    /** Who works here, in which role. */
    case ManagePeople = 'manage-people';

    /** What it is about, behind a colon. */
    public function words(): string
    {
        return match ($this) {
            self::OwnSettings => 'your own settings',
            self::LookAtSites => 'looking at sites',
            self::FetchBackups => 'downloading backups',
            self::Ask => 'asking the agency',
            self::LookAtAgency => 'looking at all accounts',
            self::Work => 'deploying, backing up, and FTP users',
            self::SeeSecrets => 'passwords and links to them',
            self::OverruleInspection => 'sending what the inspection held back',
            self::ChangeAccounts => 'adding, changing and removing accounts, clients and sites',
            self::ManagePeople => 'who works here, in which role',
        };
    }
}
