<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The walls between the rooms, held by the static analysis: one rule a folder, from the list in Rooms. */
final class Walls
{
    /** The core knows PHP, the PSR interfaces, two libraries and itself; no framework, no shell, no stand-in. */
    public function test_core_stays_alone(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Cellarium\Core'))
            ->canOnlyDependOn()
            ->classes(
                Selector::inNamespace('Cellarium\Core'),
                Selector::inNamespace('Psr'),
                Selector::inNamespace('phpseclib3'),
                Selector::inNamespace('League\Flysystem'),
                Selector::inNamespace('Aws'),
                Selector::inNamespace('Sabberworm\CSS'),
                Selector::inNamespace('Masterminds'),
                Selector::inNamespace('SebastianBergmann\Diff'),
                Selector::inNamespace('Opis\JsonSchema'),
                Selector::inNamespace('Symfony\Component\Yaml'),
                Selector::inNamespace('ParagonIE\ConstantTime'),
            )
            ->because('the rules of the trade are tested and changed without a framework');
    }

    /** The stand-in shares nothing with the application but the sockets. */
    public function test_standin_stands_for_the_outside_world(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Cellarium\Standin'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('Cellarium\Core'),
                Selector::inNamespace('App'),
                Selector::inNamespace('Illuminate'),
            )
            ->because('a host knows nothing of its customers\' tools');
    }

    /** @return iterable<string, Rule> */
    #[TestRule]
    public function folders_of_the_core_use_only_what_their_line_says(): iterable
    {
        yield from self::rules('Cellarium\Core', Rooms::CORE);
    }

    /** @return iterable<string, Rule> */
    #[TestRule]
    public function folders_of_the_application_use_only_what_their_line_says(): iterable
    {
        yield from self::rules('App', Rooms::APP);
    }

    /**
     * @param  array<string, list<string>>  $rooms
     * @return iterable<string, Rule>
     */
    private static function rules(string $root, array $rooms): iterable
    {
        foreach ($rooms as $room => $may) {
            $others = array_diff(array_keys($rooms), $may, [$room]);
            yield $room => PHPat::rule()
                ->classes(Selector::inNamespace("$root\\$room"))
                ->shouldNotDependOn()
                ->classes(...array_map(
                    static fn (string $other) => Selector::inNamespace("$root\\$other"),
                    array_values($others),
                ))
                ->because('tests/Architecture/Rooms.php says what this folder may use');
        }
    }
}
