<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Finder\Finder;

/** A wait that is measured on the clock of the wall lasts an hour where that is put back by one. */
final class DurationsTest extends TestCase
{
    /** What compares with a moment that is stored; it bounds what comes out. */
    private const WITH_MOMENTS = ['app/Runs/EndOfRun.php', 'app/Watch/Recovery.php'];

    public function test_durations_are_measured_by_a_clock_that_nobody_puts(): void
    {
        $root = dirname(__DIR__, 2);
        $found = [];
        foreach ((new Finder)->in(["$root/app", "$root/core"])->name('*.php')->contains('microtime(true)') as $file) {
            $found[] = substr($file->getPathname(), strlen($root) + 1);
        }
        sort($found);
        self::assertSame(self::WITH_MOMENTS, $found);
    }
}
