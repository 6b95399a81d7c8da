<?php

declare(strict_types=1);

namespace Tests\Core\Deployment;

use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\JournalMark;
use Cellarium\Core\Storage\FileLocks;
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
        $journal->note(JournalMark::Sent, 'a b.html');
        $journal->note(JournalMark::Renaming);
        file_put_contents("$directory/journal", 'sent c.ht', FILE_APPEND);
        $again = new FileJournal($directory);
        self::assertSame(['a b.html' => true], $again->noted(JournalMark::Sent));
        self::assertTrue($again->has(JournalMark::Renaming));
        $again->note(JournalMark::Sent, 'd.html');
        self::assertSame(
            ['a b.html' => true, 'd.html' => true],
            (new FileJournal($directory))->noted(JournalMark::Sent),
        );
    }

    public function test_a_lock_is_held_by_one_and_by_the_processes_that_inherit_it(): void
    {
        $directory = $this->directory();
        $lock = (new FileLocks($directory))->acquire('7');
        self::assertNotNull($lock);
        self::assertNull((new FileLocks($directory))->acquire('7'));
        self::assertNotNull((new FileLocks($directory))->acquire('8'));
        $child = proc_open(['cat'], [0 => ['pipe', 'r'], 1 => ['pipe', 'w'], 3 => $lock->streams[0]], $pipes);
        $lock->release();
        self::assertNull((new FileLocks($directory))->acquire('7'), 'the child still has it');
        fclose($pipes[0]);
        stream_get_contents($pipes[1]);
        proc_close($child);
        self::assertNotNull((new FileLocks($directory))->acquire('7'));
    }

    public function test_a_lock_on_several_names_is_had_whole_or_not_at_all(): void
    {
        $directory = $this->directory();
        $one = (new FileLocks($directory))->acquire('ftp.host.example|harbour', 'site.example');
        self::assertNotNull($one);
        self::assertNull((new FileLocks($directory))->acquire('site.example', 'another.example'));
        $other = (new FileLocks($directory))->acquire('another.example');
        self::assertNotNull($other, 'nothing was saved of what could not be had whole');
        $one->release();
        self::assertNotNull((new FileLocks($directory))->acquire('ftp.host.example|harbour'));
    }

    public function test_looking_at_a_journal_writes_nothing(): void
    {
        $directory = $this->directory();
        $writer = new FileJournal("$directory/run");
        self::assertFalse((new FileJournal("$directory/run"))->has(JournalMark::Sent));
        self::assertDirectoryDoesNotExist("$directory/run");
        $writer->note(JournalMark::Sent, 'a.html');
        file_put_contents("$directory/run/journal", 'sent half of a li', FILE_APPEND);
        chmod("$directory/run/journal", 0400);
        self::assertSame(['a.html' => true], (new FileJournal("$directory/run"))->noted(JournalMark::Sent));
        self::assertStringEndsWith('half of a li', (string) file_get_contents("$directory/run/journal"));
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
