<?php

declare(strict_types=1);

namespace Tests\Core\Deployment;

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\LiveAddresses;
use Cellarium\Core\Deployment\LiveProof;
use Cellarium\Core\Deployment\ModeNotSet;
use Cellarium\Core\Deployment\Run;
use Cellarium\Core\Deployment\RunEnd;
use Cellarium\Core\Deployment\RunOrder;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Deployment\RunResult;
use Cellarium\Core\Deployment\RunTools;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Undo;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Web\WebAnswer;
use Cellarium\Core\Web\WebFetcher;
use PHPUnit\Framework\TestCase;
use Tests\Support\FaultyDirectory;
use Tests\Support\FaultyModesDirectory;
use Tests\Support\FixedClock;
use Tests\Support\Killed;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\QuietListener;
use Tests\Support\QuietRuns;
use Tests\Support\QuietSite;
use Tests\Support\Scratch;
use Tests\Support\TestStore;

/** What must be writable is made so, is put back as it was, and where a server sets no modes, that is said. */
final class RunModesTest extends TestCase
{
    use Scratch;

    private string $live;

    private string $own;

    protected function setUp(): void
    {
        $this->live = $this->directory();
        $this->own = $this->directory();
        mkdir("$this->live/uploads", 0755);
        chmod("$this->live/uploads", 0755);
        file_put_contents("$this->live/settings.ini", 'theirs');
        chmod("$this->live/settings.ini", 0600);
        touch("$this->live/settings.ini", 1_700_000_000);
    }

    private function target(): Manifest
    {
        $page = TestStore::in("$this->own/contents")->put(['page']);

        return Manifest::fromEntries([
            self::entry('data', EntryKind::Directory)->withMode(0775),
            self::entry('uploads', EntryKind::Directory)->withMode(0770),
            new ManifestEntry(RelativePath::fromString('settings.ini'), EntryKind::File, 6, 1_700_000_000, 0640),
            new ManifestEntry(
                RelativePath::fromString('count.txt'),
                EntryKind::File,
                $page->size,
                1,
                0664,
                $page->sha256,
            ),
        ]);
    }

    private static function entry(string $path, EntryKind $kind): ManifestEntry
    {
        return new ManifestEntry(RelativePath::fromString($path), $kind);
    }

    private function carryOut(
        ?Manifest $target = null,
        ?RemoteDirectory $remote = null,
        int $status = 200,
        string $id = 'm1',
        bool $exact = false,
    ): RunResult {
        $root = RemotePath::root();
        $fetcher = new class($this->live, $status) implements WebFetcher
        {
            public function __construct(private string $live, private int $status)
            {
            }

            public function fetch(string $url, ?string $at = null): WebAnswer
            {
                $text = (string) @file_get_contents($this->live.parse_url($url, PHP_URL_PATH));

                return new WebAnswer($url, $this->status, hash('sha256', $text), strlen($text), $text);
            }
        };
        $run = new Run(
            new RunTools(
                new SequentialPool(
                    $remote ?? new LocalRemoteDirectory($this->live),
                    TestStore::in("$this->own/contents"),
                ),
                TestStore::in("$this->own/contents"),
                new BackupShelf("$this->own/backups"),
                new FileJournal("$this->own/$id"),
                new FixedClock,
            ),
            new QuietListener,
            new LiveProof($fetcher, new LiveAddresses(
                new PublicAddress('http://site.example', $root),
                new RunPlace($root, $root),
                ['index.html'],
            )),
            new QuietSite,
            new QuietRuns,
        );

        return $run->carryOut(new RunOrder(
            $id,
            $root,
            $target ?? $this->target(),
            new Policy(exact: $exact),
            EarlierLook::never(),
            null,
            ['index.html'],
            lingerSeconds: 0,
        ));
    }

    /** @return array<string, string> */
    private function modes(): array
    {
        clearstatcache();
        $modes = [];
        foreach (['data', 'uploads', 'settings.ini', 'count.txt'] as $name) {
            is_file("$this->live/$name") || is_dir("$this->live/$name")
                ? $modes[$name] = decoct(fileperms("$this->live/$name") & 07777)
                : null;
        }

        return $modes;
    }

    public function test_what_is_made_sent_or_there_already_gets_its_mode(): void
    {
        $result = $this->carryOut();
        self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
        self::assertSame(
            [
                'data' => '775',
                'uploads' => '770',
                'settings.ini' => '640',
                'count.txt' => '664',
            ],
            $this->modes(),
        );
        self::assertSame([], $result->modesNotSet);
        self::assertSame('theirs', file_get_contents("$this->live/settings.ini"));
    }

    public function test_a_failed_proof_puts_the_old_modes_back(): void
    {
        $result = $this->carryOut(status: 404);
        self::assertContains($result->end, [RunEnd::PutBack, RunEnd::PutBackUnproven]);
        self::assertSame(['uploads' => '755', 'settings.ini' => '600'], $this->modes());
    }

    public function test_a_server_that_sets_no_modes_takes_the_rest_and_it_is_said(): void
    {
        $none = static fn (int $number): ?\Throwable => null;
        $remote = new FaultyDirectory(new LocalRemoteDirectory($this->live), $none, $none);
        $result = $this->carryOut(remote: $remote);
        self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
        self::assertSame('page', file_get_contents("$this->live/count.txt"));
        self::assertEqualsCanonicalizing(
            [
                'data should have the mode 0775 and has 0755',
                'uploads should have the mode 0770 and has 0755',
                'settings.ini should have the mode 0640 and has 0600',
                'count.txt should have the mode 0664 and has 0644',
            ],
            array_map(static fn (ModeNotSet $one): string => $one->sentence(), $result->modesNotSet),
        );
    }

    public function test_a_file_that_came_back_more_open_than_it_was_is_not_said_to_be_as_before(): void
    {
        $secret = TestStore::in("$this->own/contents")->put(['a new secret']);
        $none = static fn (int $number): ?\Throwable => null;
        $result = $this->carryOut(
            Manifest::fromEntries([new ManifestEntry(
                RelativePath::fromString('settings.ini'),
                EntryKind::File,
                $secret->size,
                1,
                null,
                $secret->sha256,
            )]),
            new FaultyDirectory(new LocalRemoteDirectory($this->live), $none, $none),
            status: 404,
        );
        self::assertSame(RunEnd::PutBackUnproven, $result->end);
        self::assertContains('settings.ini', $result->unproven);
        self::assertSame('theirs', file_get_contents("$this->live/settings.ini"));
    }

    private const OLD = ['uploads' => '755', 'settings.ini' => '600'];

    private const NEW = [
        'data' => '775',
        'uploads' => '770',
        'settings.ini' => '640',
        'count.txt' => '664',
    ];

    /**
     * @param  \Closure(int): ?\Throwable  $before
     * @param  \Closure(int): ?\Throwable  $after
     */
    private function faulty(\Closure $before, \Closure $after): FaultyModesDirectory
    {
        return new FaultyModesDirectory(new LocalRemoteDirectory($this->live), $before, $after);
    }

    private function operationsOfAGoodRun(): int
    {
        $none = static fn (int $number): ?\Throwable => null;
        $remote = $this->faulty($none, $none);
        self::assertSame(RunEnd::Proven, $this->carryOut(remote: $remote)->end);
        self::assertSame(self::NEW, $this->modes());

        return $remote->operations;
    }

    public function test_whatever_single_operation_breaks_all_modes_are_old_or_all_are_new(): void
    {
        $all = $this->operationsOfAGoodRun();
        $none = static fn (int $number): ?\Throwable => null;
        foreach (['before', 'after'] as $when) {
            for ($bad = 1; $bad <= $all; $bad++) {
                $this->setUp();
                $fault = static fn (int $number): ?\Throwable => $number === $bad
                    ? RemoteFailure::while("operation $bad", FailureReason::Disconnected)
                    : null;
                $result = $this->carryOut(remote: $this->faulty(
                    $when === 'before' ? $fault : $none,
                    $when === 'after' ? $fault : $none,
                ));
                self::assertContains($result->end, [RunEnd::Refused, RunEnd::PutBack], "$when $bad");
                self::assertSame(self::OLD, $this->modes(), "$when $bad");
            }
        }
    }

    public function test_killed_at_any_operation_it_goes_on_and_sets_every_mode(): void
    {
        $all = $this->operationsOfAGoodRun();
        $none = static fn (int $number): ?\Throwable => null;
        for ($bad = 1; $bad <= $all; $bad++) {
            $this->setUp();
            $kill = static fn (int $number): ?\Throwable => $number === $bad ? new Killed : null;
            try {
                $this->carryOut(remote: $this->faulty($none, $kill));
            } catch (Killed) {
                // Taken up by the next worker.
            }
            $result = $this->carryOut(remote: $this->faulty($none, $none));
            self::assertSame(RunEnd::Proven, $result->end, "killed at $bad: ".$result->cause?->getMessage());
            self::assertSame(self::NEW, $this->modes(), "killed at $bad");
        }
    }

    public function test_an_undo_brings_the_old_modes_back(): void
    {
        $done = $this->carryOut();
        $live = (new Surveyor(new SequentialPool(new LocalRemoteDirectory($this->live))))->survey(RemotePath::root());
        self::assertNotNull($done->plan);
        self::assertNotNull($done->before);
        self::assertNotNull($done->after);
        $undo = Undo::fromPlan($done->plan, $done->before, $done->after, $live->manifest);
        self::assertSame([], $undo->changedSince);
        $result = $this->carryOut($undo->target, id: 'm2', exact: true);
        self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
        self::assertSame(['uploads' => '755', 'settings.ini' => '600'], $this->modes());
    }

    public function test_what_comes_back_from_a_backup_is_no_more_open_than_it_was(): void
    {
        $secret = TestStore::in("$this->own/contents")->put(['secret']);
        $result = $this->carryOut(
            Manifest::fromEntries([new ManifestEntry(
                RelativePath::fromString('count.txt'),
                EntryKind::File,
                $secret->size,
                1,
                0600,
                $secret->sha256,
            )]),
            exact: true,
        );
        self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
        self::assertSame(['count.txt' => '600'], $this->modes());
    }
}
