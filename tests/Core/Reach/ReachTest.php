<?php

declare(strict_types=1);

namespace Tests\Core\Reach;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\AccountScope;
use Cellarium\Core\Reach\DirectoryTree;
use Cellarium\Core\Reach\Extent;
use Cellarium\Core\Reach\Flag;
use Cellarium\Core\Reach\FleetScope;
use Cellarium\Core\Reach\NameClue;
use Cellarium\Core\Reach\Reach;
use Cellarium\Core\Reach\ReachPreview;
use Cellarium\Core\Reach\ScopedLogin;
use Cellarium\Core\Reach\SitePlaces;
use Cellarium\Core\Reach\SiteReach;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\Scratch;

final class ReachTest extends TestCase
{
    use Scratch;

    /** @return list<SitePlaces> */
    private static function sites(): array
    {
        $path = RemotePath::fromString(...);

        return [
            new SitePlaces(
                'a.example',
                'Anna',
                $path('/www/a.example'),
                [
                    $path('/apps/blog'),
                    $path('/www/a.example/shop'),
                ],
            ),
            new SitePlaces('b.example', 'Berta', $path('/www/b.example')),
        ];
    }

    /** @return iterable<string, array{string, list<string>, string}> */
    public static function directories(): iterable
    {
        yield 'the whole account' => ['/', ['a.example whole', 'b.example whole'], '2 of 2 sites'];
        yield 'above both, without the mounted part of one' => [
            '/www',
            ['a.example part', 'b.example whole'],
            '2 of 2 sites',
        ];
        yield 'one, without its mounted part' => [
            '/www/a.example',
            ['a.example part'],
            '1 of 2 sites, only the part under /www/a.example',
        ];
        yield 'one, all of it' => ['/www/b.example', ['b.example whole'], '1 of 2 sites, b.example'];
        yield 'inside one' => [
            '/www/b.example/orders',
            ['b.example part'],
            '1 of 2 sites, only the part under /orders',
        ];
        yield 'inside a mounted part' => [
            '/apps/blog/img',
            ['a.example part'],
            '1 of 2 sites, only the part under /img',
        ];
        yield 'beside, with a name that begins alike' => ['/www/b.exampleX', [], 'no site, only files beside them'];
    }

    /** @param  list<string>  $touched */
    #[DataProvider('directories')]
    public function test_reach_goes_by_segment_and_knows_mounted_parts(
        string $directory,
        array $touched,
        string $sentence,
    ): void {
        $reach = Reach::fromDirectory(RemotePath::fromString($directory), self::sites());
        self::assertSame(
            $touched,
            array_map(static fn (SiteReach $site): string => "$site->domain {$site->extent->value}", $reach->touched()),
        );
        self::assertSame($sentence, $reach->sentence());
        self::assertCount(2, $reach->sites);
        self::assertCount(
            count(array_filter($touched, static fn (string $site): bool => str_ends_with($site, 'whole'))),
            $reach->with(Extent::Whole),
        );
    }

    private function tree(): DirectoryTree
    {
        $root = $this->directory();
        foreach (['/www/a.example/uploads/2026', '/www/b.example', '/www-old', '/none'] as $folder) {
            mkdir($root.$folder, 0755, true);
        }
        foreach (
            [
                '/www/a.example/site-config.php',
                '/www/a.example/index.php',
                '/www/a.example/uploads/2026/pic.jpg',
                '/www/a.example/uploads/2026/pic.php',
                '/www-old/dump-2024.sql.gz',
                '/www-old/.htpasswd',
            ] as $file
        ) {
            file_put_contents($root.$file, 'x');
        }
        symlink('../a.example/uploads', "$root/www/b.example/pictures");

        return DirectoryTree::look(new LocalRemoteDirectory($root), 2);
    }

    public function test_the_tree_tells_what_was_not_looked_at_from_what_is_empty(): void
    {
        $tree = $this->tree();
        self::assertSame(
            ['/', '/none', '/www', '/www/a.example', '/www/a.example/uploads', '/www/b.example', '/www-old'],
            array_keys($tree->directories),
        );
        $path = RemotePath::fromString(...);
        self::assertFalse($tree->at($path('/www/a.example/uploads'))->looked);
        self::assertTrue($tree->at($path('/none'))->looked);
        self::assertSame(
            [true, true, false, false],
            array_map(static fn (string $gone): bool => $tree->lacks($path($gone)), [
                '/www/c.example',
                '/www/c.example/deep',
                '/www/a.example/uploads/2026',
                '/www',
            ]),
        );
        self::assertEquals(
            $tree,
            DirectoryTree::fromFields(JsonFields::fromJson((string) json_encode($tree->toArray()))),
        );
        $later = $tree->with($path('/www'), (new LocalRemoteDirectory($this->directory()))->list(RemotePath::root()));
        self::assertSame(
            ['/', '/none', '/www', '/www-old'],
            array_keys($later->directories),
            'what is gone goes with what lay in it',
        );
        self::assertCount(
            2,
            array_filter(
                DirectoryTree::look(new LocalRemoteDirectory($this->scratch[0]), 9, 2)->directories,
                static fn ($seen): bool => $seen->looked,
            ),
        );
    }

    public function test_what_a_user_would_reach_is_said_before_it_exists(): void
    {
        $see = fn (string $directory): ReachPreview => ReachPreview::fromDirectory(
            RemotePath::fromString($directory),
            'Anna',
            self::sites(),
            $this->tree(),
            [RemotePath::fromString('/www/a.example/uploads')],
        );
        $wide = $see('/www');
        self::assertSame(
            [
                true,
                ['b.example'],
                ['/www/a.example' => ['site-config.php']],
                [],
                1,
                ['/www/b.example/pictures' => '../a.example/uploads'],
            ],
            [$wide->exists, $wide->othersSites, $wide->secrets, $wide->backups, $wide->unseen, $wide->links],
        );
        self::assertSame(
            ['/www/a.example', '/www/b.example', '/www/a.example/uploads'],
            array_map(static fn (Reach $reach): string => $reach->directory->toString(), $wide->narrower),
        );
        $old = $see('/www-old');
        self::assertSame(
            [['/www-old' => ['.htpasswd']], ['/www-old' => ['dump-2024.sql.gz']], [], false],
            [$old->secrets, $old->backups, $old->narrower, $old->empty],
        );
        self::assertSame([true, true], [$see('/none')->empty, $see('/none')->exists]);
        self::assertSame([false, null], [$see('/www/typo')->exists, $see('/www/a.example/uploads/2026')->exists]);
        self::assertSame(
            ['/www/a.example/uploads'],
            array_map(
                static fn (Reach $reach): string => $reach->directory->toString(),
                $see('/www/a.example')->narrower,
            ),
        );
    }

    public function test_names_tell_of_secrets_backups_and_scripts(): void
    {
        foreach (
            [
                '.env',
                '.env.local',
                'config.php',
                'site-config.php',
                'settings.inc.php',
                'database.yml',
                '.htpasswd',
                'id_rsa',
                'server.key',
            ] as $name
        ) {
            self::assertSame(NameClue::Secret, NameClue::ofName($name), $name);
        }
        foreach (['dump.sql', 'site.sql.gz', 'index.php.bak', 'backup-2024.zip', 'backups', 'old_backup'] as $name) {
            self::assertSame(NameClue::Backup, NameClue::ofName($name), $name);
        }
        foreach (['index.html', 'configure.html', 'reconfig', 'keyboard.jpg', 'sql', 'backupless'] as $name) {
            self::assertSame(NameClue::Nothing, NameClue::ofName($name), $name);
        }
        self::assertSame(NameClue::Script, NameClue::ofName('x.PHTML'));
    }

    public function test_over_all_accounts_those_that_stand_out_come_first(): void
    {
        $now = 1_800_000_000;
        $login = static fn (
            string $name,
            string $directory,
            bool $proven = true,
            ?int $closes = null,
            bool $ends = true,
            int $idle = 0,
        ): ScopedLogin => new ScopedLogin(
            $name,
            $name,
            RemotePath::fromString($directory),
            $proven,
            $closes,
            $ends,
            $now - $idle * 86400,
        );
        $account = new AccountScope(
            1,
            self::sites(),
            [RemotePath::fromString('/www/a.example/uploads/2026')],
            [
                $login('calm', '/www/b.example', closes: $now + 60),
                $login('idle', '/www/b.example', idle: 40),
                $login('late', '/www/b.example', closes: $now - 60),
                $login('all', '/'),
                $login('both', '/www', proven: false),
                $login('scripts', '/www/a.example/uploads', ends: false),
                $login('from the future', '/www/b.example', idle: -3),
            ],
        );
        $fleet = FleetScope::fromAccounts([$account, new AccountScope(2, [], [], [])], $now);
        $flags = [];
        foreach ($fleet->logins as $scope) {
            $flags[$scope->login->login] = array_map(static fn (Flag $flag): string => $flag->value, $scope->flags);
        }
        self::assertSame(
            [
                'all' => ['whole_account', 'two_clients', 'several_sites', 'scripts_in_uploads'],
                'both' => ['two_clients', 'several_sites', 'scripts_in_uploads', 'not_proven'],
                'scripts' => ['scripts_in_uploads', 'no_end'],
                'late' => ['overdue'],
                'idle' => ['idle'],
                'calm' => [],
                'from the future' => [],
            ],
            $flags,
        );
        self::assertSame(
            [
                'whole_account' => 1,
                'two_clients' => 2,
                'several_sites' => 2,
                'scripts_in_uploads' => 3,
                'overdue' => 1,
                'not_proven' => 1,
                'no_end' => 1,
                'idle' => 1,
            ],
            $fleet->counts(),
        );
        self::assertSame(0, $fleet->logins[6]->idleDays);
    }
}
