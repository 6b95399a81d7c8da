<?php

declare(strict_types=1);

namespace Tests\Core\Package\Finding;

use Cellarium\Core\Package\Finding\ClientFindings;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Fit\PackageTraits;
use Cellarium\Core\Reference\References;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClients;

/** Whose a package is, and whose sites it then names besides. */
final class ClientFindingsTest extends TestCase
{
    /** @return iterable<string, array{array<string, int>, array<string, int>, string, list<string>}> */
    public static function packages(): iterable
    {
        $named = ['hostel.example' => 1, 'choir.example' => 3, 'elsewhere.example' => 9];
        yield 'what it names most is its own' => [$named, [], 'new', ['hostel.example']];
        yield 'what it says is its own counts more' => [$named, ['hostel.example' => 1], 'new', ['choir.example']];
        yield 'where it is live counts most' => [$named, ['choir.example' => 5], 'hostel-site', ['choir.example']];
        yield 'its own stands in its mail address only' => [
            ['choir.example' => 1],
            ['hostel.example' => 1],
            'new',
            ['choir.example'],
        ];
        yield 'two that are named as often' => [
            ['hostel.example' => 2, 'choir.example' => 2],
            [],
            'new',
            ['hostel.example', 'choir.example'],
        ];
        yield 'two sites of one client' => [['choir.example' => 1, 'concerts.example' => 1], [], 'new', []];
        yield 'none of ours' => [['elsewhere.example' => 4], [], 'new', []];
        yield 'only one of ours' => [['hostel.example' => 1], [], 'new', []];
        yield 'a theme that is live nowhere and names nobody' => [[], ['choir.example' => 1], 'new', []];
    }

    /**
     * @param  array<string, int>  $named  how often, by host
     * @param  array<string, int>  $own
     * @param  list<string>  $expected
     */
    #[DataProvider('packages')]
    public function test_sites_of_others_are_told(array $named, array $own, string $package, array $expected): void
    {
        $clients = new FixedClients(
            ['hostel.example' => 1, 'choir.example' => 2, 'concerts.example' => 2],
            ['hostel-site' => [1]],
        );
        $hosts = array_map(static fn (int $times): array => [$times, 'about.html', 7], $named);
        $found = (new ClientFindings($clients))->of(
            $package,
            new References([], [], $hosts, []),
            new PackageTraits($own, $named, []),
        );

        self::assertEqualsCanonicalizing(
            array_map(static fn (string $host): string => "about.html:7 names $host", $expected),
            array_map(
                static fn (PackageFinding $one): string => "$one->path:$one->line "
                    .(string) strstr($one->message, ', the site', true),
                $found,
            ),
        );
    }
}
