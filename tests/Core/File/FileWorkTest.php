<?php

declare(strict_types=1);

namespace Tests\Core\File;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileChangeRefused;
use Cellarium\Core\File\FileOutcome;
use Cellarium\Core\File\FileRefusal;
use Cellarium\Core\File\FileWork;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Transfer\Surveyor;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\CutShort;
use Tests\Support\DamagedStore;
use Tests\Support\FaultyModesDirectory;
use Tests\Support\Killed;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\LyingDirectory;
use Tests\Support\Scratch;
use Tests\Support\TestStore;

/** Each step of a change by hand, refused, broken off at every operation, and taken back. */
final class FileWorkTest extends TestCase
{
    use Scratch;

    private string $live;

    private ContentStore $store;

    protected function setUp(): void
    {
        $this->live = $this->directory();
        $this->store = TestStore::in($this->directory());
        mkdir("$this->live/dials");
        mkdir("$this->live/empty");
        file_put_contents("$this->live/dials/brass.html", 'the old dial');
        chmod("$this->live/dials/brass.html", 0640);
    }

    private function work(?RemoteDirectory $remote = null): FileWork
    {
        return new FileWork($remote ?? new LocalRemoteDirectory($this->live), $this->store, 'r1');
    }

    private function seen(string $path): ManifestEntry
    {
        return Surveyor::entry(
            RelativePath::fromString(ltrim($path, '/')),
            (new LocalRemoteDirectory($this->live))->stat(self::path($path)) ?? self::fail("$path is not there"),
        );
    }

    private static function path(string $path): RemotePath
    {
        return RemotePath::fromString($path);
    }

    private function change(string $kind): FileChange
    {
        $file = self::path('/dials/brass.html');

        return match ($kind) {
            'save' => FileChange::save(
                $file,
                $this->seen('/dials/brass.html'),
                $this->store->put(['the new dial, longer']),
            ),
            'save new' => FileChange::save(self::path('/dials/new.html'), null, $this->store->put(['a new page'])),
            'make directory' => FileChange::makeDirectory(self::path('/dials/enamel')),
            'remove directory' => FileChange::removeDirectory(self::path('/empty'), $this->seen('/empty')),
            'rename' => FileChange::rename($file, $this->seen('/dials/brass.html'), self::path('/empty/b.html')),
            'rename directory' => FileChange::rename(
                self::path('/dials'),
                $this->seen('/dials'),
                self::path('/empty/dials'),
            ),
            'copy' => FileChange::copy($file, $this->seen('/dials/brass.html'), self::path('/empty/copy.html')),
            'set aside' => FileChange::setAside($file, $this->seen('/dials/brass.html')),
            default => FileChange::setMode($file, $this->seen('/dials/brass.html'), 0644),
        };
    }

    /** @return iterable<string, array{string}> */
    public static function kinds(): iterable
    {
        $kinds = [
            'save',
            'save new',
            'make directory',
            'remove directory',
            'rename',
            'rename directory',
            'copy',
            'set aside',
            'set mode',
        ];
        foreach ($kinds as $kind) {
            yield $kind => [$kind];
        }
    }

    #[DataProvider('kinds')]
    public function test_a_step_is_carried_out_and_taken_back(string $kind): void
    {
        $before = $this->state();
        $change = FileChange::fromFields(JsonFields::fromJson((string) json_encode($this->change($kind)->toArray())));

        $result = $this->work()->carryOut($change);

        $after = $this->state();
        self::assertNotSame($before, $after);
        $undo = $change->undo($result->before, $result->after);
        self::assertNotNull($undo);
        $this->work()->carryOut($undo);
        self::assertSame($before, $this->state());
    }

    /** Whatever breaks, and wherever: what was is there, or what was to be, and which of them is found out. */
    #[DataProvider('kinds')]
    public function test_a_step_broken_off_anywhere_is_done_or_not_done(string $kind): void
    {
        $old = $this->state();
        $cases = 0;
        $faults = [
            static fn (): \Throwable => RemoteFailure::while('a test', FailureReason::Disconnected),
            static fn (): \Throwable => new Killed,
            static fn (): \Throwable => new CutShort,
        ];
        foreach ($faults as $fault) {
            foreach ([true, false] as $isBefore) {
                for ($operation = 1; ; $operation++) {
                    $this->tearDown();
                    $this->setUp();
                    $change = $this->change($kind);
                    $at = static fn (int $number): ?\Throwable => $number === $operation ? $fault() : null;
                    $never = static fn (): ?\Throwable => null;
                    $remote = new FaultyModesDirectory(
                        new LocalRemoteDirectory($this->live),
                        $isBefore ? $at : $never,
                        $isBefore ? $never : $at,
                    );
                    $held = null;
                    $isThrough = $this->isCarriedOut($remote, $change, $held);
                    $settled = $this->work()->settle($change, $held);
                    $now = $this->state();
                    $where = "$kind, operation $operation, ".($isBefore ? 'before' : 'after');
                    self::assertNotSame(FileOutcome::Unclear, $settled->outcome, $where);
                    $isNew = $settled->outcome === FileOutcome::Done;
                    $isThrough && self::assertTrue($isNew, "$where: said to be done");
                    self::assertSame($isNew, $now !== $old, "$where: {$settled->outcome->value}");
                    self::assertSame([], preg_grep('/cellarium/', array_keys($now)) ?: [], $where);
                    $cases++;
                    if ($remote->operations < $operation) {
                        break;
                    }
                }
            }
        }
        self::assertGreaterThan(12, $cases);
    }

    private function isCarriedOut(RemoteDirectory $remote, FileChange $change, ?ManifestEntry &$held): bool
    {
        try {
            $this->work($remote)->carryOut($change, static function (?ManifestEntry $before) use (&$held): void {
                $held = $before;
            });

            return true;
        } catch (RemoteFailure|StoreFailure|Killed|CutShort) {
            return false;
        }
    }

    public function test_what_somebody_else_changed_meanwhile_is_never_overwritten(): void
    {
        $change = $this->change('save');
        file_put_contents("$this->live/dials/brass.html", 'theirs, of another size');

        $this->assertRefused(FileRefusal::ChangedMeanwhile, $change);
        self::assertSame('theirs, of another size', file_get_contents("$this->live/dials/brass.html"));
    }

    public function test_a_change_of_the_same_size_and_time_is_found_by_the_contents_that_were_opened(): void
    {
        $file = "$this->live/dials/brass.html";
        $seen = $this->seen('/dials/brass.html')->withSha256(hash('sha256', 'the old dial'));
        $change = FileChange::save(self::path('/dials/brass.html'), $seen, $this->store->put(['new']));
        $time = (int) filemtime($file);
        file_put_contents($file, 'the odd dial');
        touch($file, $time);

        $this->assertRefused(FileRefusal::ChangedMeanwhile, $change);
        self::assertSame('the odd dial', file_get_contents($file));
    }

    public function test_what_is_changed_while_new_contents_are_sent_is_not_overwritten(): void
    {
        $change = $this->change('save');
        $file = "$this->live/dials/brass.html";
        $remote = new FaultyModesDirectory(
            new LocalRemoteDirectory($this->live),
            static fn (): ?\Throwable => null,
            static function (int $number) use ($file): ?\Throwable {
                $number === 3 && file_put_contents($file, 'theirs in between');

                return null;
            },
        );

        $this->assertRefused(FileRefusal::ChangedMeanwhile, $change, $remote);
        self::assertSame('theirs in between', file_get_contents($file));
        self::assertSame(['.', '..', 'brass.html'], scandir("$this->live/dials"), 'and nothing is left beside it');
    }

    public function test_a_file_that_became_a_link_or_a_directory_is_left_alone(): void
    {
        foreach (['save', 'copy', 'set aside'] as $kind) {
            $change = $this->change($kind);
            $file = "$this->live/dials/brass.html";
            rename($file, "$file.away");
            symlink('/etc/hostname', $file);
            $this->assertRefused(FileRefusal::NotAFile, $change);
            unlink($file);
            mkdir($file);
            $this->assertRefused(FileRefusal::NotAFile, $change);
            rmdir($file);
            $this->assertRefused(FileRefusal::NoLongerThere, $change);
            rename("$file.away", $file);
        }
    }

    public function test_nothing_is_put_where_something_lies(): void
    {
        $rename = $this->change('rename');
        $copy = $this->change('copy');
        $new = $this->change('save new');
        file_put_contents("$this->live/empty/b.html", 'other');
        file_put_contents("$this->live/empty/copy.html", 'other');
        file_put_contents("$this->live/dials/new.html", 'other');

        foreach ([$rename, $copy, $new] as $change) {
            $this->assertRefused(FileRefusal::SomethingThere, $change);
        }
        self::assertSame('other', file_get_contents("$this->live/empty/b.html"));
    }

    public function test_a_folder_is_not_moved_into_itself_and_a_full_one_not_removed(): void
    {
        $this->assertRefused(FileRefusal::IntoItself, FileChange::rename(
            self::path('/dials'),
            $this->seen('/dials'),
            self::path('/dials/inner/dials'),
        ));
        $this->assertRefused(
            FileRefusal::NotEmpty,
            FileChange::removeDirectory(self::path('/dials'), $this->seen('/dials')),
        );
    }

    public function test_a_server_that_stores_other_bytes_gets_no_new_name_for_them(): void
    {
        $lying = new LyingDirectory($this->live);
        $lying->alters = true;

        try {
            $this->work($lying)->carryOut($this->change('save'));
            self::fail('It was said to be saved.');
        } catch (RemoteFailure $failure) {
            self::assertSame(FailureReason::Incomplete, $failure->reason);
        }
        self::assertSame('the old dial', file_get_contents("$this->live/dials/brass.html"));
        self::assertSame(['.', '..', 'brass.html'], scandir("$this->live/dials"));
    }

    /** @return iterable<string, array{string}> */
    public static function losing(): iterable
    {
        yield 'save' => ['save'];
        yield 'set aside' => ['set aside'];
    }

    #[DataProvider('losing')]
    public function test_what_cannot_be_held_here_is_not_touched_there(string $kind): void
    {
        $work = new FileWork(new LocalRemoteDirectory($this->live), new DamagedStore($this->store), 'r1');
        try {
            $work->carryOut($this->change($kind));
            self::fail('It was said to be done.');
        } catch (StoreFailure $failure) {
            self::assertStringContainsString('/dials/brass.html', $failure->getMessage());
        }
        self::assertSame('the old dial', file_get_contents("$this->live/dials/brass.html"));
        self::assertSame(['.', '..', 'brass.html'], scandir("$this->live/dials"));
    }

    public function test_a_saved_file_keeps_its_mode(): void
    {
        $this->work()->carryOut($this->change('save'));

        clearstatcache();
        self::assertSame(0640, fileperms("$this->live/dials/brass.html") & 07777);
    }

    private function assertRefused(FileRefusal $reason, FileChange $change, ?RemoteDirectory $remote = null): void
    {
        $before = self::contents($this->live);
        try {
            $this->work($remote)->carryOut($change);
            self::fail('It was not refused.');
        } catch (FileChangeRefused $refused) {
            self::assertSame($reason, $refused->reason, $refused->getMessage());
        }
        $remote === null && self::assertSame($before, self::contents($this->live));
    }

    /** @return array<string, string> hash and mode by path */
    private function state(): array
    {
        $state = [];
        foreach (self::contents($this->live) as $path => $hash) {
            $state[$path] = sprintf('%o %s', fileperms($this->live.$path) & 07777, $hash);
        }

        return $state;
    }
}
