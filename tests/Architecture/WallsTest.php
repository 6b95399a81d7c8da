<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The walls between the rooms, held by the static analysis. */
final class WallsTest
{
    /** The core knows PHP, the PSR interfaces, its SSH library and itself; no framework, no shell, no stand-in. */
    public function test_core_stays_alone(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Cellarium\Core'))
            ->canOnlyDependOn()
            ->classes(
                Selector::inNamespace('Cellarium\Core'),
                Selector::inNamespace('Psr'),
                Selector::inNamespace('phpseclib3'),
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
}
