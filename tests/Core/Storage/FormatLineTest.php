<?php

declare(strict_types=1);

namespace Tests\Core\Storage;

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\JournalMark;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreFault;
use PHPUnit\Framework\TestCase;
use Tests\Support\Scratch;

/** All that is stored beside the database says how it is written: older is read, newer is told as newer. */
final class FormatLineTest extends TestCase
{
    use Scratch;

    private const LINE = '{"path":"index.html","kind":"file","size":3}'."\n";

    public function test_lists_of_backups(): void
    {
        $directory = $this->directory();
        $shelf = new BackupShelf($directory);
        $manifest = Manifest::fromEntries([]);
        $name = $shelf->keep($manifest, new \DateTimeImmutable('2026-12-01'));
        $file = "$directory/$name.unclaimed.jsonl.gz";
        self::assertStringStartsWith("{\"format\":1}\n", (string) gzdecode((string) file_get_contents($file)));
        self::assertTrue($shelf->holds($name, $manifest));
        // As the first versions wrote it.
        file_put_contents($file, gzencode($manifest->toText()));
        self::assertTrue($shelf->holds($name, $manifest));
        file_put_contents($file, gzencode("{\"format\":2}\nwhatever it will be\n"));
        $this->assertNewer(static fn (): Manifest => $shelf->manifest($name));
        $shelf->claim($name);
        self::assertFalse($shelf->setAsideDamaged($name), 'it is not damaged');
        self::assertSame([$name], $shelf->names());
    }

    public function test_what_belongs_to_a_run(): void
    {
        $directory = $this->directory().'/run';
        new FileJournal($directory);
        self::assertDirectoryDoesNotExist($directory, 'looking makes nothing');
        (new FileJournal($directory))->note(JournalMark::Planned);
        self::assertSame("1\n", file_get_contents("$directory/format"));
        unlink("$directory/format");
        self::assertTrue((new FileJournal($directory))->has(JournalMark::Planned), 'as the first versions wrote it');
        (new FileJournal($directory))->keep('after', self::LINE);
        self::assertSame("1\n", file_get_contents("$directory/format"));
        file_put_contents("$directory/format", "2\n");
        $this->assertNewer(static fn (): FileJournal => new FileJournal($directory));
    }

    public function test_what_was_seen_of_a_site(): void
    {
        $look = EarlierLook::at(1_800_000_000, Manifest::fromEntries([]));
        $text = implode('', iterator_to_array($look->lines(), false));
        self::assertStringStartsWith('{"format":1,', $text);
        self::assertEquals($look, EarlierLook::fromText($text));
        self::assertEquals($look, EarlierLook::fromText(str_replace('"format":1,', '', $text)));
        self::assertEquals(EarlierLook::never(), EarlierLook::fromText('{"format":2,"as":"it will be"}'."\n"));
    }

    /** @param  \Closure(): mixed  $read */
    private function assertNewer(\Closure $read): void
    {
        try {
            $read();
            self::fail('It was read.');
        } catch (StoreFailure $failure) {
            self::assertSame(StoreFault::NotRead, $failure->fault);
            self::assertStringContainsString('newer version of Cellarium (format 2', $failure->getMessage());
        }
    }
}
