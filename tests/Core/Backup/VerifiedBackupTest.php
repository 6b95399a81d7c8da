<?php

declare(strict_types=1);

namespace Tests\Core\Backup;

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\BackupTaker;
use Cellarium\Core\Backup\TrustedListing;
use Cellarium\Core\Backup\VerifiedBackup;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\SequentialPool;
use PHPUnit\Framework\TestCase;
use Tests\Support\FixedClock;
use Tests\Support\Listed;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\Scratch;
use Tests\Support\TestStore;

/** No backup is one before what is stored was read back: the list, what has come, and what was there before. */
final class VerifiedBackupTest extends TestCase
{
    use Scratch;

    private string $contents;

    private ContentStore $store;

    private SequentialPool $pool;

    private BackupShelf $shelf;

    protected function setUp(): void
    {
        $live = $this->directory();
        file_put_contents("$live/a.txt", 'one');
        touch("$live/a.txt", 1_700_000_000);
        $this->contents = $this->directory().'/contents';
        $this->store = TestStore::in($this->contents);
        $this->pool = new SequentialPool(new LocalRemoteDirectory($live), $this->store);
        $this->shelf = new BackupShelf($this->directory().'/backups');
    }

    private function listed(?Manifest $known = null): TrustedListing
    {
        return Listed::at($this->pool, RemotePath::root(), $known);
    }

    private function taker(): BackupTaker
    {
        return new BackupTaker($this->pool, $this->store, $this->shelf, new FixedClock);
    }

    public function test_contents_that_were_stored_wrongly_are_no_backup(): void
    {
        $this->expectException(StoreFailure::class);
        $this->expectExceptionMessage('a.txt');
        $this->taker()->take($this->listed(), function (): void {
            TestStore::flipABit($this->contents, hash('sha256', 'one'));
        });
    }

    public function test_contents_that_were_there_before_and_are_damaged_are_fetched_anew(): void
    {
        $first = $this->taker()->take($this->listed());
        TestStore::flipABit($this->contents, hash('sha256', 'one'));
        $second = $this->taker()->take($this->listed($first->manifest));
        self::assertSame([1, 0], [$second->fetchedFiles, $second->takenOverFiles]);
        self::assertTrue($this->store->isIntact(hash('sha256', 'one'), 3));
    }

    public function test_a_list_that_is_not_what_was_taken_is_no_backup(): void
    {
        $backup = $this->taker()->take($this->listed());
        $this->expectException(StoreFailure::class);
        $this->expectExceptionMessage($backup->name);
        VerifiedBackup::readBack($this->shelf, $this->store, $backup->name, Manifest::fromEntries([]), []);
    }
}
