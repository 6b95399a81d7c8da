<?php

declare(strict_types=1);

namespace Tests\Core\Backup;

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\BackupTaker;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferFailed;
use PHPUnit\Framework\TestCase;
use Tests\Support\FaultyDirectory;
use Tests\Support\FixedClock;
use Tests\Support\Listed;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\Scratch;
use Tests\Support\TestStore;

final class BackupTest extends TestCase
{
    use Scratch;

    public function test_equal_contents_are_stored_once_and_a_second_backup_fetches_only_what_changed(): void
    {
        $live = $this->directory();
        $own = $this->directory();
        mkdir("$live/sub");
        file_put_contents("$live/a.txt", 'one');
        file_put_contents("$live/sub/b.txt", 'one');
        file_put_contents("$live/c.txt", 'two');
        foreach (['a.txt', 'sub/b.txt', 'c.txt'] as $path) {
            touch("$live/$path", 1_700_000_000);
        }
        $store = TestStore::in("$own/contents");
        $pool = new SequentialPool(new LocalRemoteDirectory($live), $store);
        $taker = new BackupTaker($pool, $store, new BackupShelf("$own/backups"), new FixedClock);
        $first = $taker->take(Listed::at($pool, RemotePath::root()));
        self::assertSame(3, $first->fetchedFiles);
        self::assertCount(2, [...TestStore::settings("$own/contents")->objects()->sizes()]);

        file_put_contents("$live/c.txt", 'three');
        $second = $taker->take(Listed::at($pool, RemotePath::root(), $first->manifest));
        self::assertSame([1, 5], [$second->fetchedFiles, $second->fetchedBytes]);
        self::assertNotSame($first->name, $second->name);
        self::assertEquals($second->manifest, (new BackupShelf("$own/backups"))->manifest($second->name));
    }

    public function test_a_damaged_copy_does_not_pass_for_a_backup(): void
    {
        $live = $this->directory();
        $own = $this->directory();
        file_put_contents("$live/a.txt", 'one');
        $store = TestStore::in("$own/contents");
        $pool = new SequentialPool(new LocalRemoteDirectory($live), $store);
        $taker = new BackupTaker($pool, $store, new BackupShelf("$own/backups"), new FixedClock);
        $backup = $taker->take(Listed::at($pool, RemotePath::root()));
        TestStore::flipABit("$own/contents", hash('sha256', 'one'));
        self::assertFalse($store->isIntact(hash('sha256', 'one'), 3), "backup $backup->name cannot be relied on");
        self::assertSame('one', $store->text($store->put(['one'])->sha256), 'storing it again mends it');
    }

    public function test_files_that_change_while_they_are_read_are_read_again_and_said(): void
    {
        $live = $this->directory();
        $own = $this->directory();
        foreach (['a.txt', 'gone.txt', 'log.txt', 'same.txt'] as $name) {
            file_put_contents("$live/$name", basename($name, '.txt')."\n");
            touch("$live/$name", 1_700_000_000);
        }
        $changes = static function (int $number) use ($live): ?\Throwable {
            file_put_contents("$live/log.txt", "line $number\n", FILE_APPEND);
            if ($number === 3) {
                file_put_contents("$live/a.txt", 'two');
                file_put_contents("$live/new.txt", 'new');
                unlink("$live/gone.txt");
            }
            clearstatcache();

            return null;
        };
        $store = TestStore::in("$own/contents");
        $remote = new FaultyDirectory(
            new LocalRemoteDirectory($live),
            static fn (int $number): ?\Throwable => null,
            $changes,
        );
        $pool = new SequentialPool($remote, $store);
        $surveyor = new Surveyor($pool);
        $backup = (new BackupTaker(
            $pool,
            $store,
            new BackupShelf("$own/backups"),
            new FixedClock,
            $surveyor,
        ))->take(Listed::at($pool, RemotePath::root()));

        $texts = [];
        foreach ($backup->manifest->files() as $file) {
            $texts[$file->path->toString()] = $store->text((string) $file->sha256);
        }
        self::assertSame(['a.txt', 'log.txt', 'new.txt', 'same.txt'], array_keys($texts));
        self::assertSame(['two', 'new', "same\n"], [$texts['a.txt'], $texts['new.txt'], $texts['same.txt']]);
        self::assertStringStartsWith("log\nline 1\n", $texts['log.txt'], 'it is written to all the time');
        self::assertSame(['a.txt', 'log.txt'], $backup->changedMeanwhile);
    }

    public function test_a_directory_that_cannot_be_listed_is_a_failure_and_not_an_empty_one(): void
    {
        $live = $this->directory();
        mkdir("$live/closed");
        file_put_contents("$live/closed/a", 'a');
        $deny = static fn (int $number): ?\Throwable => $number === 2
            ? RemoteFailure::while('listing /closed', FailureReason::Forbidden)
            : null;
        $pool = new SequentialPool(
            new FaultyDirectory(new LocalRemoteDirectory($live), $deny, static fn (int $number): ?\Throwable => null),
        );
        $this->expectException(TransferFailed::class);
        (new Surveyor($pool))->survey(RemotePath::root());
    }

    public function test_our_temporary_files_are_told_apart(): void
    {
        $live = $this->directory();
        file_put_contents("$live/".TemporaryName::forRun('a1b2', 7), 'x');
        file_put_contents("$live/.cellarium-notes", 'theirs');
        $survey = (new Surveyor(new SequentialPool(new LocalRemoteDirectory($live))))->survey(RemotePath::root());
        self::assertSame(['/.cellarium-a1b2-7.part'], array_map(strval(...), $survey->temporaryOf('a1b2')));
        self::assertSame([], $survey->temporaryOf('other'));
        self::assertNotNull($survey->manifest->get('.cellarium-notes'));
    }
}
