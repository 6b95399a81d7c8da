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
use Cellarium\Core\Deployment\Run;
use Cellarium\Core\Deployment\RunEnd;
use Cellarium\Core\Deployment\RunOrder;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Deployment\RunResult;
use Cellarium\Core\Deployment\RunTools;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Transfer\SequentialPool;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Tests\Support\CutShort;
use Tests\Support\FaultyDirectory;
use Tests\Support\FixedClock;
use Tests\Support\Killed;
use Tests\Support\LocalHost;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\QuietListener;
use Tests\Support\QuietRuns;
use Tests\Support\QuietSite;
use Tests\Support\Scratch;
use Tests\Support\ServedDirectory;
use Tests\Support\StoredFiles;
use Tests\Support\TestStore;

/**
 * Every kind of fault at every single operation of a run that adds, replaces, keeps and sets aside. Each ends with the
 * new site proven, or with the old one byte for byte and a sentence; nothing temporary stays behind.
 */
final class FaultMatrixTest extends TestCase
{
    use Scratch;

    private const CUT_SHORT = 'cut short';

    private const OLD = [
        'index.html' => 'the old page',
        'default.htm' => 'placeholder',
        'css/a.css' => 'old css',
        'css/gone.css' => 'no longer needed',
        'same/s.txt' => 'the same',
        'keep.txt' => 'theirs',
        'uploads/photo.jpg' => 'a photo of theirs',
    ];

    private const NEW = [
        'index.html' => 'the new page',
        'css/a.css' => 'new css, longer',
        'img/deep/x.svg' => 'x',
        'img/deep/y.svg' => 'y',
        'same/s.txt' => 'the same',
    ];

    /** The login's own directory, which holds nothing but the site. */
    private string $home;

    private string $live;

    private string $own;

    private QuietListener $listener;

    private Way $way = Way::FileByFile;

    private float $linger = 0;

    private function lay(): void
    {
        [$this->home, $this->own] = [$this->directory(), $this->directory()];
        $this->live = "$this->home/site";
        mkdir($this->live);
        foreach (self::OLD as $path => $text) {
            @mkdir(dirname("$this->live/$path"), 0755, true);
            file_put_contents("$this->live/$path", $text);
            touch("$this->live/$path", 1_700_000_000);
        }
    }

    /** @return iterable<string, array{Way, bool, FailureReason|string|null, bool, bool}> */
    public static function faults(): iterable
    {
        $ways = [[Way::FileByFile, false], [Way::Swap, false], [Way::Swap, true], [Way::Unpack, false]];
        foreach ($ways as [$way, $tears]) {
            foreach (self::kinds() as $kind => $fault) {
                if ($tears && ! str_contains($kind, 'killed') && ! str_contains($kind, 'dropped')) {
                    continue; // What tears names apart is a connection or a process that ends.
                }
                yield "$way->value: $kind".($tears ? ', names torn apart' : '') => [$way, $tears, ...$fault];
            }
        }
    }

    /** @return iterable<string, array{FailureReason|string|null, bool, bool}> what, once done, until later */
    private static function kinds(): iterable
    {
        yield 'dropped before' => [FailureReason::Disconnected, false, false];
        yield 'dropped once it was done' => [FailureReason::Disconnected, true, false];
        yield 'stalled' => [FailureReason::TimedOut, false, false];
        yield 'refused' => [FailureReason::Forbidden, false, false];
        yield 'no space' => [FailureReason::NoSpace, false, false];
        yield 'no further connection' => [FailureReason::TooManyConnections, false, false];
        yield 'not understood' => [FailureReason::NotUnderstood, false, false];
        yield 'worker killed' => [null, false, false];
        yield 'worker killed once it was done' => [null, true, false];
        yield 'cut short, and said to be whole' => [self::CUT_SHORT, false, false];
        yield 'the server is away from then on' => [FailureReason::Unreachable, false, true];
        yield 'the account is full from then on' => [FailureReason::NoSpace, false, true];
    }

    #[DataProvider('faults')]
    public function test_at_every_operation_it_ends_new_and_proven_or_old_and_whole(
        Way $way,
        bool $tears,
        FailureReason|string|null $reason,
        bool $onceDone,
        bool $untilLater,
    ): void {
        $this->way = $way;
        $stages = [];
        $new = $this->newState();
        for ($at = 1; $at <= 200; $at++) {
            $this->lay();
            $old = self::contents($this->live);
            $hit = false;
            $fault = function (int $number) use ($at, $reason, $untilLater, &$hit, &$stages): ?\Throwable {
                if ($number !== $at && ! ($untilLater && $number > $at)) {
                    return null;
                }
                $hit = true;
                $stages[] = $this->listener->stages[count($this->listener->stages) - 1];

                return match (true) {
                    $reason === null => new Killed,
                    $reason === self::CUT_SHORT => new CutShort,
                    default => RemoteFailure::while('a trial', $reason, '451 made up'),
                };
            };
            $none = static fn (): null => null;
            try {
                $result = $this->carryOut(new FaultyDirectory(
                    new LocalRemoteDirectory($this->home),
                    $onceDone ? $none : $fault,
                    $onceDone ? $fault : $none,
                    $tears,
                ));
            } catch (Killed) {
                $result = null;
            }
            if (! $hit) {
                self::assertSame(RunEnd::Proven, $result?->end);
                self::assertGreaterThan(20, $at, 'a run takes more operations than that');
                self::assertSame(
                    $way === Way::Unpack
                        ? ['surveying', 'backing_up', 'sending', 'unpacking', 'replacing', 'proving']
                        : ['surveying', 'backing_up', 'sending', 'replacing', 'proving'],
                    array_values(array_unique(array_diff($stages, ['putting_back']))),
                    'each stage was broken',
                );

                return;
            }
            $result = $result === null || $result->end === RunEnd::Unfinished ? $this->carryOut() : $result;
            if ($result->leftBehind !== null) {
                self::assertSame(RunEnd::Proven, $result->end);
                self::assertNull($this->aRun()->tidy($this->order()));
            }
            $this->assertWhole($result, $old, $new, "at operation $at");
        }
        self::fail('A run does not take so many operations.');
    }

    #[TestWith([Way::FileByFile])]
    #[TestWith([Way::Swap])]
    #[TestWith([Way::Unpack])]
    public function test_who_has_an_old_page_gets_what_it_names_for_a_while(Way $way): void
    {
        $this->way = $way;
        $this->linger = 0.15;
        $this->lay();
        $sinceNew = $lastOfOld = null;
        $look = function () use (&$sinceNew, &$lastOfOld): null {
            if (@file_get_contents("$this->live/index.html") === self::NEW['index.html']) {
                $sinceNew ??= hrtime(true) / 1e9;
                $lastOfOld = is_file("$this->live/css/gone.css") ? hrtime(true) / 1e9 : $lastOfOld;
            }

            return null;
        };
        $result = $this->carryOut(new FaultyDirectory(new LocalRemoteDirectory($this->home), $look, $look));

        self::assertSame(RunEnd::Proven, $result->end);
        self::assertFileDoesNotExist("$this->live/css/gone.css");
        self::assertGreaterThanOrEqual($this->linger, $lastOfOld - $sinceNew);
    }

    /**
     * @param  array<string, string>  $old
     * @param  array<string, string>  $new
     */
    private function assertWhole(RunResult $result, array $old, array $new, string $where): void
    {
        $is = self::contents($this->live);
        self::assertContains($result->end, [RunEnd::Proven, RunEnd::PutBack, RunEnd::Refused], $where);
        self::assertSame($result->end === RunEnd::Proven ? $new : $old, $is, "$where: {$result->end->value}");
        $result->end === RunEnd::Proven
            || self::assertNotSame('', (string) $result->cause?->getMessage(), "$where: nobody is told why");
        foreach (array_keys(self::contents($this->home)) as $path) {
            self::assertStringNotContainsString('.cellarium-', (string) $path, $where);
        }
    }

    /** @return array<string, string> */
    private function newState(): array
    {
        $this->lay();
        self::assertSame(RunEnd::Proven, $this->carryOut()->end);

        return self::contents($this->live);
    }

    private function carryOut(?RemoteDirectory $remote = null): RunResult
    {
        return $this->aRun($remote)->carryOut($this->order());
    }

    private function aRun(?RemoteDirectory $remote = null): Run
    {
        $root = RemotePath::fromString('/site');
        $store = TestStore::in("$this->own/contents");

        return new Run(
            new RunTools(
                new SequentialPool($remote ?? new LocalRemoteDirectory($this->home), $store),
                $store,
                new BackupShelf("$this->own/backups"),
                new FileJournal("$this->own/run"),
                new FixedClock,
            ),
            $this->listener = new QuietListener,
            new LiveProof(new ServedDirectory($this->live), new LiveAddresses(
                new PublicAddress('http://site.example', $root),
                new RunPlace($root, $root),
                ['index.html', 'default.htm'],
            )),
            new QuietSite(new HostJobs(
                new LocalHost($this->home, $remote instanceof FaultyDirectory ? $remote : null),
                RemotePath::fromString('/site'),
            )),
            new QuietRuns,
        );
    }

    private function order(): RunOrder
    {
        return new RunOrder(
            't1',
            RemotePath::fromString('/site'),
            StoredFiles::in(TestStore::in("$this->own/contents"), self::NEW),
            new Policy(PathPattern::all(['uploads/']), ['default.htm'], ['css/gone.css']),
            EarlierLook::never(),
            null,
            ['index.html', 'default.htm'],
            way: $this->way,
            lingerSeconds: $this->linger,
        );
    }
}
