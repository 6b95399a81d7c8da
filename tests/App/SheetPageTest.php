<?php

declare(strict_types=1);

namespace Tests\App;

use App\Sheets\SheetPage;
use Cellarium\Core\Sheet\ClientSheet;
use Cellarium\Core\Sheet\SheetChange;
use Cellarium\Core\Sheet\SheetCover;
use Cellarium\Core\Sheet\SheetKey;
use Cellarium\Core\Sheet\SheetKind;
use Cellarium\Core\Sheet\SignedSheet;
use PHPUnit\Framework\TestCase;

/** A sheet of two pages at the most shows what matters and counts the rest. */
final class SheetPageTest extends TestCase
{
    private static function change(int $at, SheetKind $kind, bool $isGood = true): SheetChange
    {
        return new SheetChange($at, 'site.example', $kind, "change $at", 'Rowan Aldous', 'done', $isGood, 0, 1, 0);
    }

    /** @param  list<SheetChange>  $changes */
    private static function page(array $changes): SheetPage
    {
        return new SheetPage(SignedSheet::sign(new ClientSheet(
            'Marram & Tide',
            '#1c6b64',
            'Saltmarsh Ferries',
            new SheetCover(0, 1000, 'Europe/Berlin'),
            'Rowan Aldous',
            1000,
            1,
            '',
            [],
            $changes,
            [],
        ), SheetKey::generate()));
    }

    public function test_what_went_wrong_and_what_was_deployed_come_before_many_small_changes(): void
    {
        $changes = [
            self::change(1, SheetKind::Deployed),
            self::change(2, SheetKind::ByNobodyHere, false),
            ...array_map(static fn (int $at): SheetChange => self::change($at, SheetKind::ByHand), range(3, 32)),
        ];
        $page = self::page($changes);
        $shown = array_map(static fn (SheetChange $one): int => $one->at, $page->changes());
        self::assertSame([...range(32, 26), 2, 1], $shown);
        self::assertSame('And 23 more: 23 by hand.', $page->moreChanges());
        self::assertSame('', self::page(array_slice($changes, 0, 3))->moreChanges());
    }

    public function test_moments_are_those_of_the_zone_the_sheet_was_made_for(): void
    {
        self::assertSame('1 Jan 1970 01:00', self::page([])->when(0));
        self::assertSame('never', self::page([])->when(null));
    }
}
