<?php

declare(strict_types=1);

namespace Cellarium\Core\People;

/** In which role somebody signs in. */
enum Role: string
{
    case Maintainer = 'maintainer';

    case Helper = 'helper';

    /** Somebody of a client, for whom nothing exists but what is that client's. */
    case ClientsPerson = 'clients_person';

    public function label(): string
    {
        return match ($this) {
            self::Maintainer => 'maintainer',
            self::Helper => 'helper',
            self::ClientsPerson => 'client’s person',
        };
    }

    /** What the role is for, in a line. */
    public function words(): string
    {
        return match ($this) {
            self::Maintainer => 'everything',
            self::Helper => 'daily work; sees no passwords, changes no accounts and no people',
            self::ClientsPerson => 'looks at one client’s sites, and asks',
        };
    }

    public function isOfTheAgency(): bool
    {
        return $this !== self::ClientsPerson;
    }

    /** Whether the role has it; fetching backups is granted to a client's person one by one, beside the role. */
    public function may(Permission $permission): bool
    {
        return match ($this) {
            self::Maintainer => true,
            self::Helper => ! in_array(
                $permission,
                [
                    Permission::SeeSecrets,
                    Permission::OverruleInspection,
                    Permission::ChangeAccounts,
                    Permission::ManagePeople,
                ],
                true,
            ),
            self::ClientsPerson => in_array(
                $permission,
                [Permission::OwnSettings, Permission::LookAtSites, Permission::Ask],
                true,
            ),
        };
    }
}
