<?php

declare(strict_types=1);

namespace Tests\Core\Outage;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Outage\Outage;
use Cellarium\Core\Outage\ProbeResult;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class OutageTest extends TestCase
{
    /**
     * @param  list<array{int, int, int}>  $answers  begun, ended, status
     * @param  array{int, int, bool, bool}  $expected  milliseconds, unanswered, out before, out at the end
     */
    #[DataProvider('answers')]
    public function test_it_counts_from_the_first_question_without_a_site_to_the_next_answer_with_one(
        array $answers,
        array $expected,
    ): void {
        $outage = Outage::fromAnswers(array_map(
            static fn (array $one): ProbeResult => new ProbeResult(...[...$one, $one[2] === 0 ? 'refused' : '']),
            $answers,
        ));
        self::assertSame($expected, [$outage->milliseconds, $outage->unanswered, $outage->wasOut, $outage->isOut]);
        self::assertEquals($outage, Outage::fromFields(JsonFields::fromJson((string) json_encode($outage->toArray()))));
    }

    /** @return array<string, array{list<array{int, int, int}>, array{int, int, bool, bool}}> */
    public static function answers(): array
    {
        return [
            'always there' => [[[0, 10, 200], [250, 260, 301]], [0, 0, false, false]],
            'gone for two questions' => [
                [[0, 10, 200], [250, 260, 503], [500, 510, 404], [750, 790, 200]],
                [540, 2, false, false],
            ],
            'gone twice' => [
                [[0, 1, 200], [10, 11, 500], [20, 21, 200], [30, 31, 0], [40, 41, 200]],
                [22, 2, false, false],
            ],
            'not there before: what was not there is not taken away' => [
                [[0, 10, 404], [250, 260, 404], [500, 510, 200], [750, 760, 200]],
                [0, 0, true, false],
            ],
            'not there before, then there, then gone' => [
                [[0, 10, 403], [250, 260, 200], [500, 505, 500], [750, 760, 200]],
                [260, 1, true, false],
            ],
            'gone for good' => [[[0, 10, 200], [250, 5250, 0]], [5000, 1, false, true]],
            'a site that asks for a password is there' => [[[0, 10, 401], [250, 260, 429]], [0, 0, false, false]],
            'nobody asked' => [[], [0, 0, false, false]],
        ];
    }

    public function test_what_was_not_measured_is_never_told_as_no_outage(): void
    {
        self::assertSame('not measured: what asked was cut off', Outage::notMeasured()->sentence());
        $rest = Outage::fromAnswers([new ProbeResult(0, 10, 200), new ProbeResult(20, 30, 200)]);
        self::assertStringStartsWith('0 s: asked 2 times', $rest->sentence());
        self::assertStringContainsString('cut off', Outage::notMeasured()->then($rest)->sentence());
        self::assertFalse(Outage::notMeasured()->then($rest)->isWhole);
    }
}
