<?php

declare(strict_types=1);

namespace Tests\Support;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\RemoteText;
use Cellarium\Core\Connection\ResumesSending;
use Cellarium\Core\Connection\SetsModes;
use Cellarium\Core\DocumentRoot\OtherLogin;
use Cellarium\Core\DocumentRoot\SharedRootProof;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileQuery;
use Cellarium\Core\File\FileWork;
use Cellarium\Core\File\Finder;
use Cellarium\Core\File\FoundFile;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;
use Cellarium\Core\Transfer\Job\CopyFile;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\RenameTogether;
use Cellarium\Core\Transfer\Job\SendContent;
use Cellarium\Core\Transfer\JobRunner;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Surveyor;
use PHPUnit\Framework\TestCase;

/** What every remote directory does, whatever carries it. */
abstract class RemoteDirectoryContract extends TestCase
{
    /** Whether listings have modes, and times to the second. */
    protected bool $listsModes = true;

    protected bool $listsExactTimes = true;

    /** A directory that is empty and may be written to. */
    abstract protected function remote(): RemoteDirectory;

    protected static function path(string $path): RemotePath
    {
        return RemotePath::fromString($path);
    }

    protected static function put(RemoteDirectory $remote, string $path, string $bytes): ?int
    {
        $stream = fopen('php://temp', 'w+b');
        fwrite($stream, $bytes);
        rewind($stream);

        $remote->write(self::path($path), $stream, strlen($bytes));

        return $remote->size(self::path($path));
    }

    public function test_what_an_earlier_try_left_is_sent_on_and_never_mixed_with_other_bytes(): void
    {
        $remote = $this->remote();
        $whole = random_bytes(1_200_000);
        $own = sys_get_temp_dir().'/resumed-'.bin2hex(random_bytes(6));
        $store = TestStore::in($own);
        $ours = $store->put([$whole])->sha256;
        $send = static fn (): JobResult => (new JobRunner($remote, $store))->run(new SendContent(
            $ours,
            self::path('/big.zip'),
            strlen($whole),
            'big.zip',
        ));
        try {
            self::put($remote, '/big.zip', substr($whole, 0, 700_000));
            $moved = $send()->bytes;
            self::assertSame($whole, self::get($remote, '/big.zip'));
            if ($remote instanceof ResumesSending && $this->resumes()) {
                self::assertSame(500_000, $moved);
                self::assertSame(0, $send()->bytes, 'all of it is there');
            }
            self::put($remote, '/big.zip', str_repeat('other', 100_000));
            self::assertSame(strlen($whole), $send()->bytes, 'sent from the beginning');
            self::assertSame($whole, self::get($remote, '/big.zip'));
        } finally {
            exec('rm -rf '.escapeshellarg($own));
        }
    }

    public function test_changes_by_hand_are_confirmed_and_taken_back(): void
    {
        $remote = $this->remote();
        $store = TestStore::in(sys_get_temp_dir().'/by-hand-'.bin2hex(random_bytes(6)));
        $work = new FileWork($remote, $store, 'r1');
        $names = ['ä ö 100% #1?.txt', '-dash "quoted".txt', WireName::fromWire("caf\xe9.txt")];
        $seen = static fn (string $path): ManifestEntry => Surveyor::entry(
            RelativePath::fromString(ltrim($path, '/')),
            $remote->stat(self::path($path)) ?? self::fail("$path is not there"),
        );
        $done = 0;
        foreach ($names as $name) {
            if (! $this->isTaken($remote, $name)) {
                continue;
            }
            $done++;
            $work->carryOut(FileChange::makeDirectory(self::path('/folder')));
            $save = FileChange::save(self::path("/$name"), $seen("/$name"), $store->put(["new text of $name"]));
            $saved = $work->carryOut($save);
            self::assertSame("new text of $name", self::get($remote, "/$name"));
            $back = $save->undo($saved->before, $saved->after);
            self::assertNotNull($back);
            $work->carryOut($back);
            self::assertSame("old $name", self::get($remote, "/$name"));

            $copy = FileChange::copy(self::path("/$name"), $seen("/$name"), self::path("/folder/$name"));
            $copied = $work->carryOut($copy);
            self::assertSame("old $name", self::get($remote, "/folder/$name"));
            $move = FileChange::rename(self::path('/folder'), $seen('/folder'), self::path('/moved folder'));
            $work->carryOut($move);
            $work->carryOut(FileChange::setAside(self::path("/moved folder/$name"), $seen("/moved folder/$name")));
            self::assertNotNull($copied->after);
            $work->carryOut(FileChange::removeDirectory(self::path('/moved folder'), $seen('/moved folder')));
            if ($this->listsModes && $remote instanceof SetsModes && $this->setsModes()) {
                $mode = FileChange::setMode(self::path("/$name"), $seen("/$name"), 0600);
                $refused = $work->carryOut($mode)->modeRefused;
                self::assertSame(! $refused, $remote->stat(self::path("/$name"))?->mode === 0600);
                str_contains($name, '"') || self::assertFalse($refused);
            }
            $work->carryOut(FileChange::setAside(self::path("/$name"), $seen("/$name")));
            self::assertSame([], $remote->list(self::path('/')), 'nothing is left');
        }
        self::assertGreaterThanOrEqual(2, $done);
    }

    public function test_files_are_found_by_name_and_by_what_stands_in_them(): void
    {
        $remote = $this->remote();
        $remote->makeDirectory(self::path('/a folder'));
        $names = array_values(array_filter(
            ['ä ö 100% #1?.txt', '-dash "quoted".txt', WireName::fromWire("caf\xe9.txt"), 'plain.txt', 'end..txt'],
            fn (string $name): bool => $this->isTaken($remote, $name),
        ));
        foreach ($names as $number => $name) {
            self::put($remote, "/a folder/$name", $number % 2 === 0 ? "Ring the bell\n0211 55" : 'nothing of it');
        }
        self::assertGreaterThanOrEqual(4, count($names));

        $scratch = sys_get_temp_dir().'/find-'.bin2hex(random_bytes(6));
        mkdir($scratch);
        $finder = new Finder(new SequentialPool($remote), $scratch, static function (): void {
        });
        $paths = static fn (FileQuery $fileQuery): array => array_map(
            static fn (FoundFile $found): string => $found->path->name(),
            $finder->find(self::path('/a folder'), $fileQuery)->found,
        );
        self::assertEqualsCanonicalizing($names, $paths(new FileQuery('*.txt')));
        $ringing = array_values(array_filter(
            $names,
            static fn (int $number): bool => $number % 2 === 0,
            ARRAY_FILTER_USE_KEY,
        ));
        self::assertEqualsCanonicalizing($ringing, $paths(new FileQuery(text: 'THE BELL')));
        rmdir($scratch);
    }

    /** Whether the server takes a file of this name, and lists it under the same. */
    private function isTaken(RemoteDirectory $remote, string $name): bool
    {
        try {
            self::put($remote, "/$name", "old $name");
        } catch (RemoteFailure) {
            return false;
        }
        if ($remote->stat(self::path("/$name")) !== null) {
            return true;
        }
        $remote->remove(self::path("/$name"));

        return false;
    }

    /** Whether the server sets modes when asked to. */
    protected function setsModes(): bool
    {
        return true;
    }

    /** Whether the server lets sending go on behind what is there. */
    protected function resumes(): bool
    {
        return true;
    }

    protected static function get(RemoteDirectory $remote, string $path): string
    {
        $stream = fopen('php://temp', 'w+b');
        $remote->read(self::path($path), $stream);
        rewind($stream);

        return (string) stream_get_contents($stream);
    }

    private static function assertFails(FailureReason $reason, \Closure $work): void
    {
        try {
            $work();
        } catch (RemoteFailure $failure) {
            self::assertSame($reason, $failure->reason, $failure->getMessage());

            return;
        }
        self::fail("It did not fail with $reason->value.");
    }

    public function test_bytes_come_back_as_they_were_sent(): void
    {
        $remote = $this->remote();
        $files = [
            '' => '/empty.txt',
            "line\nline\r\n\0\xff" => '/bytes.bin',
            random_bytes(700_000) => '/large.bin',
        ];
        foreach ($files as $bytes => $path) {
            self::assertContains(self::put($remote, $path, (string) $bytes), [strlen((string) $bytes), null]);
            self::assertSame((string) $bytes, self::get($remote, $path));
            self::assertSame(strlen((string) $bytes), $remote->stat(self::path($path))?->size);
        }
        self::put($remote, '/large.bin', 'shorter');
        self::assertSame('shorter', self::get($remote, '/large.bin'));
    }

    public function test_what_is_larger_than_asked_for_is_not_read_to_its_end(): void
    {
        $remote = $this->remote();
        self::put($remote, '/long.txt', str_repeat('long ', 40_000));

        self::assertNull(RemoteText::read($remote, self::path('/long.txt'), 1000));
        self::assertSame(200_000, strlen((string) RemoteText::read($remote, self::path('/long.txt'), 200_000)));
        self::assertSame('long ', substr(self::get($remote, '/long.txt'), 0, 5), 'and it goes on working');
    }

    public function test_odd_names_survive(): void
    {
        $remote = $this->remote();
        $names = [
            'ä ö.txt',
            '100% #1?.txt',
            'a;b=c.txt',
            '-dash.txt',
            "it's \"quoted\".txt",
            'trailing:.txt',
            '.hidden',
            'a & b.txt',
            ' leading',
            'ends:',
            '[x]*?',
            '#hash%25',
            '~tilde',
            '{a,b}',
            '$HOME',
            'back`tick',
        ];
        foreach ($names as $name) {
            self::put($remote, "/$name", $name);
        }
        $listed = array_map(static fn (RemoteEntry $entry): string => $entry->name, $remote->list(RemotePath::root()));
        sort($listed);
        sort($names);
        self::assertSame($names, $listed);
        foreach ($names as $name) {
            self::assertSame($name, self::get($remote, "/$name"));
        }
    }

    public function test_directories_nest_and_an_empty_one_is_empty(): void
    {
        $remote = $this->remote();
        self::assertSame([], $remote->list(RemotePath::root()));
        foreach (['/a', '/a/b c', '/a/b c/ü'] as $path) {
            $remote->makeDirectory(self::path($path));
        }
        $remote->makeDirectory(self::path('/a'));
        self::put($remote, '/a/b c/ü/x.txt', 'x');
        $entries = $remote->list(self::path('/a/b c'));
        self::assertCount(1, $entries);
        self::assertSame(['ü', EntryKind::Directory], [$entries[0]->name, $entries[0]->kind]);
        self::assertFails(FailureReason::Forbidden, static fn () => $remote->removeDirectory(self::path('/a')));
        $remote->remove(self::path('/a/b c/ü/x.txt'));
        foreach (['/a/b c/ü', '/a/b c', '/a'] as $path) {
            $remote->removeDirectory(self::path($path));
        }
        self::assertSame([], $remote->list(RemotePath::root()));
    }

    public function test_renaming_replaces_a_file(): void
    {
        $remote = $this->remote();
        self::put($remote, '/new.part', 'new');
        self::put($remote, '/index.html', 'old and longer');
        $remote->rename(self::path('/new.part'), self::path('/index.html'));
        self::assertSame('new', self::get($remote, '/index.html'));
        self::assertNull($remote->stat(self::path('/new.part')));
    }

    public function test_a_directory_and_the_one_beside_it_change_names_in_one_piece(): void
    {
        $remote = $this->remote();
        foreach (['/site', '/site/up loads', '/new'] as $directory) {
            $remote->makeDirectory(self::path($directory));
        }
        self::put($remote, '/site/up loads/kept.txt', 'kept');
        self::put($remote, '/site/index.html', 'old');
        self::put($remote, '/new/index.html', 'new');
        $give = static fn (array $renames): array => (new JobRunner($remote))->run(
            new RenameTogether($renames, 'site'),
        )->names;

        $said = $give([
            [self::path('/site/up loads'), self::path('/new/up loads')],
            [self::path('/site/nothing'), self::path('/new/nothing')],
            [self::path('/site'), self::path('/old')],
            [self::path('/new'), self::path('/site')],
        ]);

        self::assertSame('', $said[0]);
        self::assertNotSame('', $said[1], 'what is not there is refused, and the others are done all the same');
        self::assertSame(['', ''], array_slice($said, 2));
        self::assertSame('new', self::get($remote, '/site/index.html'));
        self::assertSame('kept', self::get($remote, '/site/up loads/kept.txt'));
        self::assertSame('old', self::get($remote, '/old/index.html'));
        $again = $give([[self::path('/old'), self::path('/site')]]);
        self::assertNotSame('', $again[0], 'never over a directory that holds something');
        self::assertSame('new', self::get($remote, '/site/index.html'));
    }

    public function test_a_copy_holds_the_same_whether_the_server_makes_it_or_we_send_it(): void
    {
        $remote = $this->remote();
        $own = sys_get_temp_dir().'/copied-'.bin2hex(random_bytes(6));
        $store = TestStore::in($own);
        $ours = $store->put(['the same bytes'])->sha256;
        try {
            $remote->makeDirectory(self::path('/beside'));
            self::put($remote, '/two blanks.txt', 'another file');
            foreach (['/plain.txt', '/one of "them".txt', '/two  blanks.txt', "/it's.txt"] as $name) {
                self::put($remote, $name, 'the same bytes');
                (new JobRunner($remote, $store))->run(
                    new CopyFile(self::path($name), new SendContent($ours, self::path("/beside$name"), 14, 'one')),
                );
                self::assertSame('the same bytes', self::get($remote, "/beside$name"));
                self::assertSame('the same bytes', self::get($remote, $name));
            }
            self::assertSame('another file', self::get($remote, '/two blanks.txt'));
        } finally {
            exec('rm -rf '.escapeshellarg($own));
        }
    }

    public function test_a_token_of_another_login_is_found_past_directories_that_are_not_there(): void
    {
        $remote = $this->remote();
        $remote->makeDirectory(self::path('/public'));
        $remote->makeDirectory(self::path('/beside'));
        $known = array_map(self::path(...), ['/nowhere/deep', '/beside', '/public/css', '/public']);
        $found = SharedRootProof::find(
            $remote,
            self::path('/public'),
            'k2j4h6g8f0',
            [new OtherLogin(1, 'host.example', $remote, SharedRootProof::candidates(self::path('/public'), $known))],
        );
        self::assertSame([null, '/public'], [$found[0]->trouble?->getMessage(), $found[0]->place?->toString()]);
        self::assertSame([], $remote->list(self::path('/public')), 'the token is gone');
        $remote->removeDirectory(self::path('/beside'));
        $remote->removeDirectory(self::path('/public'));
    }

    public function test_absent_is_not_empty(): void
    {
        $remote = $this->remote();
        self::assertNull($remote->stat(self::path('/none')));
        self::assertFails(FailureReason::NotFound, static fn () => $remote->list(self::path('/none')));
        self::assertFails(FailureReason::NotFound, static fn () => self::get($remote, '/none.txt'));
        self::assertFails(FailureReason::NotFound, static fn () => $remote->remove(self::path('/none.txt')));
        self::assertFails(FailureReason::NotFound, static fn () => self::put($remote, '/none/x.txt', 'x'));
        self::assertFails(
            FailureReason::NotFound,
            static fn () => $remote->rename(self::path('/none'), self::path('/other')),
        );
    }

    public function test_modes_are_set_and_kept_raw(): void
    {
        $remote = $this->remote();
        self::put($remote, '/x.txt', 'x');
        self::assertInstanceOf(SetsModes::class, $remote);
        $remote->setMode(self::path('/x.txt'), 0640);
        self::assertSame($this->listsModes ? 0640 : null, $remote->stat(self::path('/x.txt'))?->mode);
    }

    public function test_times_are_near_and_in_utc(): void
    {
        $remote = $this->remote();
        self::put($remote, '/x.txt', 'x');
        $entry = $remote->stat(self::path('/x.txt'));
        self::assertSame($this->listsExactTimes, $entry?->exact);
        self::assertEqualsWithDelta(time(), $entry->modified, $this->listsExactTimes ? 5 : 86400);
    }
}
