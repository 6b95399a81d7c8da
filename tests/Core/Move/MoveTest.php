<?php

declare(strict_types=1);

namespace Tests\Core\Move;

use Cellarium\Core\Move\DirectoryMap;
use Cellarium\Core\Move\MoveCheck;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\SitePlaces;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class MoveTest extends TestCase
{
    private static function path(string $path): RemotePath
    {
        return RemotePath::fromString($path);
    }

    #[DataProvider('directories')]
    public function test_a_directory_goes_with_what_it_lies_in(string $directory, ?string $expected): void
    {
        $map = new DirectoryMap([
            [self::path('/www/ferries'), self::path('/htdocs/ferries.example')],
            [self::path('/www/ferries/book'), self::path('/htdocs/book.example')],
            [self::path('/www/staff'), self::path('/htdocs/staff.example/public')],
        ]);
        self::assertSame($expected, $map->of(self::path($directory))?->toString());
    }

    /** @return array<string, array{string, string|null}> */
    public static function directories(): array
    {
        return [
            'itself' => ['/www/ferries', '/htdocs/ferries.example'],
            'inside' => ['/www/ferries/uploads/2026', '/htdocs/ferries.example/uploads/2026'],
            'inside the inner one' => ['/www/ferries/book/img', '/htdocs/book.example/img'],
            'above all' => ['/www', '/htdocs'],
            'the top' => ['/', '/htdocs'],
            'a name that only begins alike' => ['/www/ferries2', null],
            'elsewhere' => ['/mail', null],
        ];
    }

    public function test_what_would_overwrite_another_is_objected_to_and_what_was_nested_may_be_again(): void
    {
        $check = new MoveCheck(
            [
                'ferries.example' => [self::path('/www/ferries'), self::path('/htdocs/ferries')],
                'book.example' => [self::path('/www/ferries/book'), self::path('/htdocs/ferries/book')],
                'staff.example' => [self::path('/www/staff'), self::path('/htdocs/ferries/staff')],
                'kelpie.example' => [self::path('/www/kelpie'), self::path('/htdocs/there/kelpie')],
            ],
            [new SitePlaces('there.example', 'Kelpie Boatyard', self::path('/htdocs/there'))],
        );
        self::assertNull($check->objection('book.example'));
        self::assertStringContainsString('ferries.example', (string) $check->objection('staff.example'));
        self::assertStringContainsString('there.example is served', (string) $check->objection('kelpie.example'));
    }

    public function test_two_sites_of_one_directory_may_share_it_again_and_two_of_different_ones_may_not(): void
    {
        $shared = ['/www/one', '/www/one', '/www/two'];
        $check = new MoveCheck(array_combine(
            ['a.example', 'b.example', 'c.example'],
            array_map(static fn (string $from): array => [self::path($from), self::path('/htdocs')], $shared),
        ), []);
        self::assertNotNull($check->objection('c.example'));
        self::assertNotNull($check->objection('a.example'), 'c.example would be in it');
        $check = new MoveCheck([
            'a.example' => [self::path('/www/one'), self::path('/htdocs')],
            'b.example' => [self::path('/www/one'), self::path('/htdocs')],
        ], []);
        self::assertNull($check->objection('a.example'));
    }

    public function test_what_a_user_would_reach_beyond_what_it_did_is_named(): void
    {
        $check = new MoveCheck(
            [
                'ferries.example' => [self::path('/www/ferries'), self::path('/htdocs/ferries')],
                'staff.example' => [self::path('/private/staff'), self::path('/htdocs/staff')],
            ],
            [new SitePlaces('there.example', 'Kelpie Boatyard', self::path('/htdocs/there'))],
        );
        self::assertSame([], $check->newlyReached(self::path('/www/ferries'), self::path('/htdocs/ferries')));
        self::assertSame(
            ['there.example', 'staff.example'],
            $check->newlyReached(self::path('/www'), self::path('/htdocs')),
        );
    }
}
