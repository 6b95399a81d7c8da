<?php

declare(strict_types=1);

namespace Tests\Core\Transfer;

use Cellarium\Core\Transfer\AccountLock;
use Cellarium\Core\Transfer\FileJournal;
use Cellarium\Core\Transfer\Mark;
use Cellarium\Core\Transfer\SpeedMeter;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

final class FileJournalTest extends TestCase
{
    use Scratch;

    public function test_a_torn_last_line_counts_as_not_done_and_is_cut_away(): void
    {
        $directory = $this->directory();
        $journal = new FileJournal($directory);
        $journal->note(Mark::Sent, 'a b.html');
        $journal->note(Mark::Renaming);
        file_put_contents("$directory/journal", 'sent c.ht', FILE_APPEND);
        $again = new FileJournal($directory);
        self::assertSame(['a b.html' => true], $again->noted(Mark::Sent));
        self::assertTrue($again->has(Mark::Renaming));
        $again->note(Mark::Sent, 'd.html');
        self::assertSame(['a b.html' => true, 'd.html' => true], (new FileJournal($directory))->noted(Mark::Sent));
    }

    public function test_a_lock_is_held_by_one_and_by_the_processes_that_inherit_it(): void
    {
        $directory = $this->directory();
        $lock = AccountLock::tryFor($directory, '7');
        self::assertNotNull($lock);
        self::assertNull(AccountLock::tryFor($directory, '7'));
        self::assertNotNull(AccountLock::tryFor($directory, '8'));
        $child = proc_open(['cat'], [0 => ['pipe', 'r'], 1 => ['pipe', 'w'], 3 => $lock->stream], $pipes);
        $lock->release();
        self::assertNull(AccountLock::tryFor($directory, '7'), 'the child still has it');
        fclose($pipes[0]);
        stream_get_contents($pipes[1]);
        proc_close($child);
        self::assertNotNull(AccountLock::tryFor($directory, '7'));
    }

    public function test_speed_and_time_left(): void
    {
        $meter = new SpeedMeter(100.0, 10_000);
        self::assertNull($meter->now());
        self::assertNull($meter->left());
        for ($second = 1; $second <= 4; $second++) {
            $meter->at(100.0 + $second, $second * 1000);
        }
        self::assertEqualsWithDelta(1000.0, $meter->now(), 0.1);
        self::assertEqualsWithDelta(6.0, $meter->left(), 0.1);
        self::assertEqualsWithDelta(0.4, $meter->share(), 0.001);
        for ($second = 5; $second <= 14; $second++) {
            $meter->at(100.0 + $second, 4000);
        }
        self::assertSame(0.0, $meter->now(), 'nothing moved for ten seconds');
        self::assertEqualsWithDelta(4000 / 14, $meter->average(), 0.1);
        self::assertSame(1.0, (new SpeedMeter(0.0, 0))->share());
    }
}
