<?php

declare(strict_types=1);

namespace Tests\Core\Transfer;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\SurveyLimits;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\SurveyStopped;
use PHPUnit\Framework\TestCase;
use Tests\Support\EndlessDirectory;

/** A look at a server comes to an end, whatever the server does. */
final class SurveyorTest extends TestCase
{
    /** @param  \Closure(RemotePath): list<RemoteEntry>  $lists */
    private static function assertStops(
        string $words,
        int $mostListed,
        \Closure $lists,
        SurveyLimits $limits = new SurveyLimits(),
    ): void {
        $remote = new EndlessDirectory($lists);
        try {
            (new Surveyor(new SequentialPool($remote), $limits))->survey(RemotePath::fromString('/www'));
            self::fail('It came to an end by itself.');
        } catch (SurveyStopped $stopped) {
            self::assertStringContainsString($words, $stopped->getMessage());
            self::assertLessThanOrEqual($mostListed, $remote->listed);
        }
    }

    public function test_a_directory_that_holds_itself_is_a_circle(): void
    {
        $same = [
            EndlessDirectory::file('index.html'),
            EndlessDirectory::directory('css'),
            EndlessDirectory::directory('again'),
        ];
        self::assertStops('goes round in a circle', 4, static fn (RemotePath $at): array => $same);
    }

    public function test_a_circle_further_down_is_found_there(): void
    {
        self::assertStops('/www/deep/a/again/again', 10, static fn (RemotePath $at): array => match (true) {
            $at->name() === 'www' => [EndlessDirectory::directory('deep')],
            $at->name() === 'deep' => [EndlessDirectory::directory('a'), EndlessDirectory::file('x')],
            default => [EndlessDirectory::directory('again')],
        });
    }

    public function test_a_name_that_is_a_file_and_a_directory_is_a_listing_that_lies(): void
    {
        self::assertStops('is listed twice, as different kinds', 1, static fn (RemotePath $at): array => [
            EndlessDirectory::file('index.html'),
            EndlessDirectory::directory('css'),
            EndlessDirectory::file('css'),
        ]);
    }

    public function test_alike_is_not_the_same(): void
    {
        $remote = new EndlessDirectory(
            static fn (RemotePath $at): array => $at->depth() > 4
                ? []
                : [EndlessDirectory::directory('x', $at->depth()), EndlessDirectory::file('index.html')],
        );
        $survey = (new Surveyor(new SequentialPool($remote)))->survey(RemotePath::fromString('/www'));
        self::assertCount(8, $survey->manifest->all());
        $empty = new EndlessDirectory(
            static fn (RemotePath $at): array => $at->depth() === 1
                ? [EndlessDirectory::directory('a'), EndlessDirectory::directory('b')]
                : [],
        );
        self::assertCount(
            2,
            (new Surveyor(new SequentialPool($empty)))->survey(RemotePath::fromString('/www'))->manifest->all(),
        );
    }

    public function test_depth_number_and_time_have_an_end(): void
    {
        $number = 0;
        $deeper = static function (RemotePath $at) use (&$number): array {
            return [EndlessDirectory::directory('d'.$number++)];
        };
        self::assertStops('directories deep', 12, $deeper, new SurveyLimits(depth: 10));
        $wider = static function (RemotePath $at) use (&$number): array {
            $number++;

            return array_map(
                static fn (int $index): RemoteEntry => EndlessDirectory::directory("w$number-$index"),
                range(1, 50),
            );
        };
        self::assertStops('more than 1000 files', 30, $wider, new SurveyLimits(entries: 1000));
        self::assertStops('longer than 0 seconds', 1, $wider, new SurveyLimits(seconds: 0));
    }

    public function test_it_can_be_cancelled_and_says_how_far_it_is(): void
    {
        $heard = [];
        $hear = static function (int $directories, int $entries) use (&$heard): void {
            $heard[] = [$directories, $entries];
            if ($directories === 3) {
                throw Cancelled::byAPerson();
            }
        };
        $number = 0;
        $remote = new EndlessDirectory(static function () use (&$number): array {
            return [EndlessDirectory::directory('d'.$number++), EndlessDirectory::file('f')];
        });
        try {
            (new Surveyor(new SequentialPool($remote), hear: $hear))->survey(RemotePath::root());
            self::fail('It went on.');
        } catch (Cancelled) {
            self::assertSame([[1, 2], [2, 4], [3, 6]], $heard);
        }
    }
}
