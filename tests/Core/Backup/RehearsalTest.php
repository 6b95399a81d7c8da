<?php

declare(strict_types=1);

namespace Tests\Core\Backup;

use Cellarium\Core\Backup\Rehearsal;
use Cellarium\Core\Backup\RehearsalFailed;
use Cellarium\Core\Backup\RehearsalStage;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Web\CurlWebClient;
use PHPUnit\Framework\TestCase;
use Tests\Support\FullDisk;
use Tests\Support\Scratch;
use Tests\Support\StoredFiles;
use Tests\Support\TestStore;
use Tests\Support\WebServer;

/** A backup is brought back where nobody sees it, by a real web server; what is not as it was is named. */
final class RehearsalTest extends TestCase
{
    use Scratch;

    private const FILES = [
        'index.html' => '<h1>Tides</h1>',
        'about us/größe.html' => '<p>about</p>',
        'shop/cart.php' => '<?php echo 1;',
        '.htaccess' => 'Deny from all',
        'img/a.svg' => '<svg/>',
    ];

    private string $contents;

    private string $stage;

    private ContentStore $store;

    private Manifest $manifest;

    protected function setUp(): void
    {
        $this->contents = $this->directory();
        $this->stage = $this->directory();
        $this->store = TestStore::in($this->contents);
        $this->manifest = StoredFiles::in($this->store, self::FILES);
    }

    public function test_all_of_it_is_unpacked_hashed_and_its_pages_are_given_and_nothing_stays(): void
    {
        $server = new WebServer($this->directory(), $this->stage);
        try {
            $result = (new Rehearsal($this->store, $this->stage, $this->stage($server)))->carryOut(
                $this->manifest,
                ['index.html'],
            );
        } finally {
            $server->stop();
        }
        self::assertSame([5, 2, 2, 1], [$result->files, $result->pages, $result->ofPages, $result->notRun]);
        self::assertSame(['.rehearsal'], array_values(array_diff((array) scandir($this->stage), ['.', '..'])));
    }

    public function test_what_is_damaged_in_the_store_is_named(): void
    {
        TestStore::flipABit($this->contents, hash('sha256', '<p>about</p>'));
        $this->expectException(RehearsalFailed::class);
        $this->expectExceptionMessage('about us/größe.html came out with other bytes');
        (new Rehearsal($this->store, $this->stage))->carryOut($this->manifest);
    }

    public function test_a_disk_that_is_full_says_nothing_of_the_backup_and_leaves_nothing_behind(): void
    {
        $manifest = StoredFiles::in($this->store, [...self::FILES, 'large.bin' => random_bytes(100_000)]);
        try {
            FullDisk::during(20_000, fn () => (new Rehearsal($this->store, $this->stage))->carryOut($manifest));
            self::fail('It was rehearsed without room.');
        } catch (RehearsalFailed $failed) {
            self::assertStringContainsString('large.bin could not be made', $failed->getMessage());
            self::assertStringContainsString('of the backup this says nothing', $failed->getMessage());
        }
        self::assertSame(['.rehearsal'], array_values(array_diff((array) scandir($this->stage), ['.', '..'])));
        self::assertSame(6, (new Rehearsal($this->store, $this->stage))->carryOut($manifest)->files);
    }

    public function test_a_page_that_is_not_given_is_named_with_what_the_server_said(): void
    {
        $server = new WebServer($this->directory(), $this->directory());
        try {
            (new Rehearsal($this->store, $this->stage, $this->stage($server)))->carryOut($this->manifest);
            self::fail('It was given.');
        } catch (RehearsalFailed $failure) {
            self::assertStringContainsString('status 404', $failure->getMessage());
        } finally {
            $server->stop();
        }
    }

    public function test_a_page_that_is_given_with_other_bytes_is_named(): void
    {
        $elsewhere = $this->directory();
        foreach (array_keys(self::FILES) as $path) {
            is_dir(dirname("$elsewhere/$path")) || mkdir(dirname("$elsewhere/$path"), 0755, true);
            file_put_contents("$elsewhere/$path", 'of another site');
        }
        $server = new WebServer($this->directory(), $elsewhere);
        try {
            (new Rehearsal($this->store, $this->stage, $this->stage($server)))->carryOut($this->manifest);
            self::fail('It was taken for the page.');
        } catch (RehearsalFailed $failure) {
            self::assertStringContainsString('other bytes than the backup holds', $failure->getMessage());
        } finally {
            $server->stop();
        }
    }

    public function test_a_directory_that_holds_something_else_is_left_alone(): void
    {
        file_put_contents("$this->stage/index.html", 'a live site');
        try {
            (new Rehearsal($this->store, $this->stage))->carryOut($this->manifest);
            self::fail('It was used.');
        } catch (RehearsalFailed $failure) {
            self::assertStringContainsString('nothing in it was touched', $failure->getMessage());
        }
        self::assertSame('a live site', file_get_contents("$this->stage/index.html"));
    }

    public function test_what_an_earlier_one_left_is_removed_and_links_are_not_followed(): void
    {
        $elsewhere = $this->directory();
        file_put_contents("$elsewhere/theirs.txt", 'stays');
        file_put_contents("$this->stage/.rehearsal", '');
        symlink($elsewhere, "$this->stage/img");
        (new Rehearsal($this->store, $this->stage))->carryOut($this->manifest);
        self::assertSame(['theirs.txt'], array_values(array_diff((array) scandir($elsewhere), ['.', '..'])));
    }

    private function stage(WebServer $server): RehearsalStage
    {
        return new RehearsalStage(
            new CurlWebClient(static fn (): string => '127.0.0.1'),
            "http://rehearsal.example:$server->port",
        );
    }
}
