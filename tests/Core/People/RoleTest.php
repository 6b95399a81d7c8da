<?php

declare(strict_types=1);

namespace Tests\Core\People;

use Cellarium\Core\People\Permission;
use Cellarium\Core\People\Role;
use PHPUnit\Framework\TestCase;

final class RoleTest extends TestCase
{
    /** @return list<Permission> */
    private static function of(Role $role): array
    {
        return array_values(array_filter(Permission::cases(), $role->may(...)));
    }

    public function test_a_maintainer_may_do_everything(): void
    {
        self::assertSame(Permission::cases(), self::of(Role::Maintainer));
    }

    public function test_a_helper_sees_no_secrets_and_changes_no_accounts_and_no_people(): void
    {
        self::assertSame(
            [
                Permission::OwnSettings,
                Permission::LookAtSites,
                Permission::FetchBackups,
                Permission::Ask,
                Permission::LookAtAgency,
                Permission::Work,
            ],
            self::of(Role::Helper),
        );
    }

    public function test_a_clients_person_looks_and_asks(): void
    {
        self::assertSame(
            [Permission::OwnSettings, Permission::LookAtSites, Permission::Ask],
            self::of(Role::ClientsPerson),
        );
    }
}
