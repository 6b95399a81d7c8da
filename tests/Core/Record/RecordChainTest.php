<?php

declare(strict_types=1);

namespace Tests\Core\Record;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Record\RecordChain;
use PHPUnit\Framework\TestCase;

final class RecordChainTest extends TestCase
{
    public function test_a_seal_is_of_the_line_the_one_before_and_the_key(): void
    {
        $chain = new RecordChain(new Secret('key'));
        $seal = $chain->seal(RecordChain::START, ['sentence' => 'a', 'facts' => ['x' => 1, 'y' => [2, 3]]]);
        self::assertMatchesRegularExpression('/\A[0-9a-f]{64}\z/', $seal);
        self::assertSame(
            $seal,
            $chain->seal(RecordChain::START, ['facts' => ['y' => [2, 3], 'x' => 1], 'sentence' => 'a']),
            'in whatever order its names stand',
        );
        foreach ([
            'another line' => $chain->seal(RecordChain::START, ['sentence' => 'b']),
            'another before' => $chain->seal($seal, ['sentence' => 'a', 'facts' => ['x' => 1, 'y' => [2, 3]]]),
            'another order in a list' => $chain->seal(
                RecordChain::START,
                ['sentence' => 'a', 'facts' => ['x' => 1, 'y' => [3, 2]]],
            ),
            'another key' => (new RecordChain(new Secret('other')))->seal(
                RecordChain::START,
                ['sentence' => 'a', 'facts' => ['x' => 1, 'y' => [2, 3]]],
            ),
        ] as $why => $other) {
            self::assertNotSame($seal, $other, $why);
        }
    }
}
