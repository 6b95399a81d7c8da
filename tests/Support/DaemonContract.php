<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\FtpRemoteDirectory;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Surveyor;

/** The contract against one of Debian's daemons, and what only a server nobody here wrote shows. */
abstract class DaemonContract extends RemoteDirectoryContract
{
    use Scratch {
        tearDown as private sweep;
    }

    protected ?FtpDaemon $daemon = null;

    abstract protected function start(string $directory): FtpDaemon;

    protected function remote(): RemoteDirectory
    {
        $this->daemon = $this->start($this->directory());

        return new FtpRemoteDirectory($this->daemon->endpoint());
    }

    protected function resumes(): bool
    {
        return ! $this->daemon instanceof Proftpd; // AllowStoreRestart is off as it comes.
    }

    protected function tearDown(): void
    {
        $this->daemon?->stop();
        $this->sweep();
    }

    public function test_many_transfers_go_through_one_session(): void
    {
        $remote = $this->remote();
        for ($number = 0; $number < 12; $number++) {
            self::put($remote, "/$number.txt", str_repeat((string) $number, 3000));
            self::assertSame(str_repeat((string) $number, 3000), self::get($remote, "/$number.txt"));
            self::assertCount($number + 1, $remote->list(RemotePath::root()));
        }
    }

    public function test_a_name_in_latin_1_is_a_name_like_any_other(): void
    {
        $remote = $this->remote();
        $this->daemon?->lay("gr\xfc\xdfe.txt", 'bytes');
        [$entry] = $remote->list(RemotePath::root());
        self::assertSame("gr\xfc\xdfe.txt", WireName::toWire($entry->name));
        $path = RemotePath::root()->child($entry->name);
        self::assertSame(5, $remote->stat($path)?->size);
        self::assertSame('bytes', self::get($remote, $path->toString()));
        $remote->rename($path, self::path('/plain.txt'));
        $remote->rename(self::path('/plain.txt'), $path);
        self::put($remote, $path->toString(), 'other');
        self::assertSame('other', (string) file_get_contents("{$this->daemon?->home}/gr\xfc\xdfe.txt"));
        $remote->remove($path);
        self::assertSame([], $remote->list(RemotePath::root()));
    }

    public function test_what_no_command_can_name_is_told_by_name_and_all_else_is_backed_up(): void
    {
        $remote = $this->remote();
        $odd = ["tab\there.txt", "line\nend.txt", "bell\x07.txt"];
        foreach ([...$odd, 'plain.txt', 'also plain.txt'] as $name) {
            $this->daemon?->lay($name, "bytes of $name");
        }
        $survey = (new Surveyor(new SequentialPool($remote)))->survey(RemotePath::root());
        $paths = array_map(
            static fn (ManifestEntry $entry): string => (string) $entry->path,
            $survey->manifest->files(),
        );
        // Some daemons write another sign for what cannot be printed; then that name is listed, and is not there.
        self::assertContains('plain.txt', $paths);
        self::assertContains('also plain.txt', $paths);
        $skipped = array_map(WireName::toWire(...), $survey->skipped);
        self::assertSame([], array_diff($skipped, $odd), 'each as the server has it');
        // pure-ftpd lists none of them to anybody.
        $listed = $this->daemon instanceof PureFtpd ? 2 : 5;
        self::assertSame($listed, count($paths) + count($skipped), 'none is lost without a word');
        foreach ($survey->skipped as $name) {
            try {
                $remote->remove(RemotePath::root()->child($name));
                self::fail('It was named to the server.');
            } catch (RemoteFailure $failure) {
                self::assertStringContainsString('no way to name', (string) $failure->serverSaid);
            }
        }
        self::assertSame('bytes of plain.txt', self::get($remote, '/plain.txt'));
    }

    public function test_directories_with_names_that_need_care_are_gone_into(): void
    {
        $remote = $this->remote();
        foreach (
            ['[x]*?', 'a;b=c', '-dash', ' blanks ', '~tilde', '#hash%25', "it's \"q\"", 'ends:', '.hidden'] as $name
        ) {
            $directory = RemotePath::root()->child($name);
            $this->daemon?->layDirectory($name);
            self::put($remote, "$directory/x.txt", $name);
            self::assertSame(
                ['x.txt'],
                array_map(static fn (RemoteEntry $entry): string => $entry->name, $remote->list($directory)),
                $name,
            );
            self::assertSame($name, self::get($remote, "$directory/x.txt"));
            $remote->remove($directory->child('x.txt'));
            self::assertSame([], $remote->list($directory), $name);
        }
    }
}
