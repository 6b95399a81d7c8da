<?php

declare(strict_types=1);

namespace Tests\Core\Deployment;

use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Deployment\FileJournal;
use Cellarium\Core\Deployment\Journal;
use Cellarium\Core\Deployment\LiveAddresses;
use Cellarium\Core\Deployment\LiveProof;
use Cellarium\Core\Deployment\ProofFailed;
use Cellarium\Core\Deployment\Run;
use Cellarium\Core\Deployment\RunEnd;
use Cellarium\Core\Deployment\RunOrder;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Deployment\RunRefusal;
use Cellarium\Core\Deployment\RunRefused;
use Cellarium\Core\Deployment\RunResult;
use Cellarium\Core\Deployment\RunTools;
use Cellarium\Core\Manifest\EarlierLook;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Answers;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Web\WebAnswer;
use Cellarium\Core\Web\WebFetcher;
use PHPUnit\Framework\TestCase;
use Tests\Support\FaultyDirectory;
use Tests\Support\FixedClock;
use Tests\Support\FullDiskJournal;
use Tests\Support\Killed;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\LyingDirectory;
use Tests\Support\QuietListener;
use Tests\Support\QuietRuns;
use Tests\Support\QuietSite;
use Tests\Support\Scratch;
use Tests\Support\ServedDirectory;
use Tests\Support\StoredFiles;
use Tests\Support\TestStore;

/** One run from start to end, then the same run with the world failing at every single operation. */
final class RunTest extends TestCase
{
    use Scratch;

    private const OLD = [
        'index.html' => 'the old page',
        'default.htm' => 'placeholder',
        'css/a.css' => 'old css',
        'keep.txt' => 'theirs',
        'same.txt' => 'same',
    ];

    private const NEW = [
        'index.html' => 'the new page',
        'css/a.css' => 'new css, longer',
        'img/deep/x.svg' => 'x',
        'about.html' => 'about',
        'same.txt' => 'same',
    ];

    private string $live;

    private string $own;

    /** @var array<string, string> */
    private array $before;

    /** @var array<string, string> */
    private array $after;

    protected function setUp(): void
    {
        $this->lay();
    }

    private function lay(): void
    {
        $this->live = $this->directory();
        $this->own = $this->directory();
        foreach (self::OLD as $path => $text) {
            @mkdir(dirname("$this->live/$path"), 0755, true);
            file_put_contents("$this->live/$path", $text);
            touch("$this->live/$path", 1_700_000_000);
        }
        $this->before = self::contents($this->live);
        $this->after = [
            '/about.html' => 'about',
            '/css/' => null,
            '/css/a.css' => 'new css, longer',
            '/img/' => null,
            '/img/deep/' => null,
            '/img/deep/x.svg' => 'x',
            '/index.html' => 'the new page',
            '/keep.txt' => 'theirs',
            '/same.txt' => 'same',
        ];
        $this->after = array_map(
            static fn (?string $text): string => $text === null ? '' : hash('sha256', $text),
            $this->after,
        );
        ksort($this->after);
    }

    private function store(): ContentStore
    {
        return TestStore::in("$this->own/contents");
    }

    private function target(): Manifest
    {
        return StoredFiles::in($this->store(), self::NEW);
    }

    /** @param  (\Closure(string): ?bool)|null  $isGoing */
    private function carryOut(
        ?RemoteDirectory $remote = null,
        ?string $seen = null,
        ?int $room = null,
        ?WebFetcher $fetcher = null,
        ?QuietListener $listener = null,
        ?Journal $journal = null,
        ?Manifest $target = null,
        ?Manifest $known = null,
        bool $accepted = false,
        ?\Closure $isGoing = null,
        ?Manifest $left = null,
        ?Answers $answers = null,
        Way $way = Way::FileByFile,
    ): RunResult {
        $root = RemotePath::root();
        $proof = new LiveProof(
            $fetcher ?? $this->fetcher(),
            new LiveAddresses(
                new PublicAddress('http://site.example', $root),
                new RunPlace($root, $root),
                ['index.html', 'default.htm'],
            ),
        );
        $run = new Run(
            new RunTools(
                new SequentialPool($remote ?? new LocalRemoteDirectory($this->live), $this->store()),
                $this->store(),
                new BackupShelf("$this->own/backups"),
                $journal ?? new FileJournal("$this->own/run"),
                new FixedClock(),
            ),
            $listener ?? new QuietListener(),
            $proof,
            new QuietSite(room: $room),
            new QuietRuns($isGoing),
        );

        return $run->carryOut(
            new RunOrder(
                't1',
                $root,
                $target ?? $this->target(),
                new Policy(placeholders: ['default.htm']),
                EarlierLook::at(0, $known ?? Manifest::fromEntries([])),
                $seen,
                ['index.html', 'default.htm'],
                collapseAccepted: $accepted,
                left: $left,
                answers: $answers,
                way: $way,
                lingerSeconds: 0,
            ),
        );
    }

    public function test_a_tree_beside_the_site_needs_room_for_all_of_it(): void
    {
        // What changes has 33 bytes, the whole tree 37.
        foreach ([[Way::Swap, 35], [Way::Unpack, 70]] as [$way, $room]) {
            $refused = $this->carryOut(room: $room, way: $way);
            self::assertInstanceOf(RunRefused::class, $refused->cause);
            self::assertSame(RunRefusal::NoRoom, $refused->cause->reason, $way->value);
        }
        self::assertSame($this->before, self::contents($this->live));
        self::assertSame(RunEnd::Proven, $this->carryOut(room: 35)->end);
    }

    public function test_a_login_that_begins_at_the_document_root_cannot_swap_it(): void
    {
        $refused = $this->carryOut(way: Way::Swap);

        self::assertInstanceOf(RunRefused::class, $refused->cause);
        self::assertSame(RunRefusal::WayBarred, $refused->cause->reason);
        self::assertSame($this->before, self::contents($this->live));
    }

    /** @param  array<string, string>  $texts  by path */
    private static function left(array $texts): Manifest
    {
        return Manifest::fromEntries(array_map(
            static fn (string $path, string $text): ManifestEntry => new ManifestEntry(
                RelativePath::fromString($path),
                EntryKind::File,
                strlen($text),
                1,
                null,
                hash('sha256', $text),
            ),
            array_keys($texts),
            $texts,
        ));
    }

    public function test_what_reading_shows_to_have_changed_live_is_asked_before_anything_is_touched(): void
    {
        file_put_contents("$this->live/index.html", str_repeat('n', strlen(self::NEW['index.html'])));
        $before = self::contents($this->live);
        $left = self::left(['index.html' => str_repeat('o', strlen(self::NEW['index.html']))]);
        $result = $this->carryOut(left: $left);
        self::assertSame(RunEnd::Refused, $result->end);
        self::assertInstanceOf(RunRefused::class, $result->cause);
        self::assertSame(RunRefusal::Questions, $result->cause->reason);
        self::assertStringContainsString('index.html', $result->cause->getMessage());
        self::assertSame($before, self::contents($this->live));
        self::assertNotNull($result->backup, 'what was read is kept');
    }

    public function test_keeping_both_leaves_theirs_beside_and_undoing_takes_it_away(): void
    {
        file_put_contents("$this->live/index.html", 'theirs');
        touch("$this->live/index.html", 1_795_046_400);
        $result = $this->carryOut(left: self::left(['index.html' => 'ours']), answers: Answers::all(Choice::Both));
        self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
        self::assertSame('theirs', file_get_contents("$this->live/index.live-2026-11-19.html"));
        self::assertSame(self::NEW['index.html'], file_get_contents("$this->live/index.html"));
    }

    public function test_a_file_that_a_server_cut_without_a_word_is_found_by_the_listing_and_sent_once_more(): void
    {
        $pages = [];
        foreach (range(1, 5) as $number) {
            $pages["page-$number.html"] = str_repeat("text $number ", 9);
        }
        $never = static fn (): null => null;
        $cuts = new class(new LocalRemoteDirectory($this->live), $never, $never) extends FaultyDirectory
        {
            public int $sent = 0;

            public function write(RemotePath $file, $source, int $size): void
            {
                ++$this->sent === 2
                    ? parent::write($file, fopen('data:,cut', 'rb'), 3)
                    : parent::write($file, $source, $size);
            }
        };
        $result = $this->carryOut($cuts, target: StoredFiles::in($this->store(), $pages));
        self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
        self::assertSame(6, $cuts->sent);
        self::assertSame(str_repeat('text 2 ', 9), file_get_contents("$this->live/page-2.html"));
    }

    private function fetcher(): WebFetcher
    {
        return new ServedDirectory($this->live);
    }

    public function test_it_backs_up_replaces_and_proves(): void
    {
        $listener = new QuietListener;
        $result = $this->carryOut(listener: $listener);
        self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
        self::assertSame($this->after, self::contents($this->live));
        self::assertSame(['surveying', 'backing_up', 'sending', 'replacing', 'proving', 'proving'], $listener->stages);
        self::assertSame('http://site.example/', $result->proofs[0]->url);
        self::assertCount(5, $result->proofs);
        self::assertContains('css/a.css', $listener->shown);
        self::assertSame([], array_diff($listener->shown, array_keys(self::NEW)), 'only what was sent');
        $backup = (new BackupShelf("$this->own/backups"))->manifest((string) $result->backup);
        foreach ($backup->files() as $file) {
            self::assertSame(self::OLD[$file->path->toString()], $this->store()->text((string) $file->sha256));
        }
        self::assertCount(5, $backup->files());
        self::assertSame(hash('sha256', 'the new page'), $result->after?->get('index.html')?->sha256);
    }

    public function test_modes_of_replaced_files_stay_as_they_were(): void
    {
        chmod("$this->live/css/a.css", 0640);
        self::assertSame(RunEnd::Proven, $this->carryOut()->end);
        self::assertSame(0640, fileperms("$this->live/css/a.css") & 0777);
    }

    public function test_it_refuses_when_the_server_changed_since_the_plan(): void
    {
        $seen = (new Surveyor(new SequentialPool(new LocalRemoteDirectory($this->live))))
            ->survey(RemotePath::root())
            ->manifest->digest();
        file_put_contents("$this->live/new.txt", 'somebody was here');
        $before = self::contents($this->live);
        $result = $this->carryOut(seen: $seen);
        self::assertSame(RunEnd::Refused, $result->end);
        self::assertStringContainsString('has changed since the plan was made', (string) $result->cause?->getMessage());
        self::assertSame($before, self::contents($this->live));
    }

    public function test_it_refuses_when_there_is_no_room(): void
    {
        $result = $this->carryOut(room: 10);
        self::assertSame(RunEnd::Refused, $result->end);
        self::assertInstanceOf(RunRefused::class, $result->cause);
        self::assertSame(RunRefusal::NoRoom, $result->cause->reason);
        self::assertSame($this->before, self::contents($this->live));
    }

    public function test_a_live_page_with_other_bytes_puts_everything_back(): void
    {
        $stale = new class implements WebFetcher
        {
            public function fetch(string $url, ?string $at = null): WebAnswer
            {
                return new WebAnswer($url, 200, hash('sha256', 'cached'), 6, 'cached');
            }
        };
        $listener = new QuietListener;
        $result = $this->carryOut(fetcher: $stale, listener: $listener);
        self::assertSame([], $listener->shown, 'other bytes are not the same');
        self::assertSame(RunEnd::PutBackUnproven, $result->end, 'visitors still see what was cached');
        self::assertContains('http://site.example/', $result->unproven);
        self::assertInstanceOf(ProofFailed::class, $result->cause);
        self::assertStringContainsString('does not show the bytes that were sent', $result->cause->getMessage());
        self::assertSame($this->before, self::contents($this->live));
    }

    public function test_whatever_single_operation_fails_the_site_is_whole(): void
    {
        $all = $this->operationsOfAGoodRun();
        $ends = [];
        foreach (['before', 'after'] as $when) {
            for ($bad = 1; $bad <= $all; $bad++) {
                $this->lay();
                $fault = static fn (int $number): ?\Throwable => $number === $bad
                    ? RemoteFailure::while("operation $bad", FailureReason::Forbidden, '550 no')
                    : null;
                $none = static fn (int $number): ?\Throwable => null;
                $remote = new FaultyDirectory(
                    new LocalRemoteDirectory($this->live),
                    $when === 'before' ? $fault : $none,
                    $when === 'after' ? $fault : $none,
                );
                $result = $this->carryOut($remote);
                self::assertContains($result->end, [RunEnd::Refused, RunEnd::PutBack], "$when $bad");
                self::assertSame($this->before, self::contents($this->live), "$when $bad");
                self::assertNotNull($result->cause);
                $ends[$result->end->value] = true;
            }
        }
        self::assertCount(2, $ends, 'some fail before anything is touched, some after');
    }

    public function test_killed_at_any_operation_it_goes_on_to_the_new_state(): void
    {
        $all = $this->operationsOfAGoodRun();
        foreach (['before', 'after'] as $when) {
            for ($at = 1; $at <= $all; $at++) {
                $this->lay();
                $kill = static fn (int $number): ?\Throwable => $number === $at ? new Killed : null;
                $none = static fn (int $number): ?\Throwable => null;
                $remote = new FaultyDirectory(
                    new LocalRemoteDirectory($this->live),
                    $when === 'before' ? $kill : $none,
                    $when === 'after' ? $kill : $none,
                );
                try {
                    $this->carryOut($remote);
                    self::fail("It was not killed $when $at.");
                } catch (Killed) {
                    $result = $this->carryOut();
                }
                self::assertSame(RunEnd::Proven, $result->end, "$when $at: ".$result->cause?->getMessage());
                self::assertSame($this->after, self::contents($this->live), "$when $at");
            }
        }
    }

    public function test_killed_while_putting_back_it_still_gets_back(): void
    {
        // The third rename fails; from there on the process is killed at each following operation in turn.
        for ($killAt = 1; $killAt <= 60; $killAt++) {
            $this->lay();
            $broken = 0;
            $remote = new FaultyDirectory(
                new LocalRemoteDirectory($this->live),
                static function (int $number) use (&$broken, $killAt): ?\Throwable {
                    if ($broken === 0 && $number === 21) {
                        $broken = $number;

                        return RemoteFailure::while('renaming', FailureReason::Forbidden);
                    }

                    return $broken > 0 && $number === $broken + $killAt ? new Killed() : null;
                },
                static fn (int $number): ?\Throwable => null,
            );
            try {
                $result = $this->carryOut($remote);
            } catch (Killed) {
                $result = $this->carryOut();
                self::assertSame(RunEnd::PutBack, $result->end, "killed $killAt after");
                self::assertSame($this->before, self::contents($this->live), "killed $killAt after");

                continue;
            }
            self::assertGreaterThan(5, $killAt, 'putting back takes more operations than that');
            self::assertSame(RunEnd::PutBack, $result->end);

            return;
        }
        self::fail('Putting back never came to its end.');
    }

    public function test_a_server_that_stays_broken_is_said_to_be_unfinished_and_is_put_back_later(): void
    {
        $down = static fn (int $number): ?\Throwable => $number >= 17
            ? RemoteFailure::while("operation $number", FailureReason::Disconnected)
            : null;
        $result = $this->carryOut(
            new FaultyDirectory(
                new LocalRemoteDirectory($this->live),
                $down,
                static fn (int $number): ?\Throwable => null,
            ),
        );
        self::assertSame(RunEnd::Unfinished, $result->end);
        self::assertNotNull($result->notPutBack);
        self::assertSame(RunEnd::PutBack, $this->carryOut()->end);
        self::assertSame($this->before, self::contents($this->live));
    }

    public function test_a_disk_of_our_own_that_fills_up_at_any_note_leaves_a_run_that_can_be_taken_up(): void
    {
        $ends = [];
        for ($good = 0; $good < 200; $good++) {
            $this->lay();
            $result = $this->carryOut(journal: new FullDiskJournal(new FileJournal("$this->own/run"), $good));
            $ends[$result->end->value] = true;
            if ($result->end === RunEnd::Proven) {
                self::assertSame(['refused', 'unfinished', 'proven'], array_keys($ends));

                return;
            }
            if ($result->end === RunEnd::Refused) {
                self::assertSame($this->before, self::contents($this->live), "after $good notes");
                self::assertStringContainsString('Check the space', (string) $result->cause?->getMessage());
            } else {
                self::assertStringContainsString('Check the space', (string) $result->notPutBack?->getMessage());
            }
            // Kept and not noted is what a power cut leaves too, so that is taken for one and put back.
            $again = $this->carryOut()->end;
            self::assertContains($again, [RunEnd::Proven, RunEnd::PutBack], "after $good notes");
            self::assertSame(
                $again === RunEnd::Proven ? $this->after : $this->before,
                self::contents($this->live),
                "after $good notes",
            );
        }
        self::fail('The run never came to its end.');
    }

    public function test_a_journal_emptied_by_a_power_cut_means_put_back_and_never_untouched(): void
    {
        $all = $this->operationsOfAGoodRun();
        $halfway = 0;
        for ($at = 1; $at <= $all; $at++) {
            $this->lay();
            $remote = new FaultyDirectory(
                new LocalRemoteDirectory($this->live),
                static fn (int $number): ?\Throwable => $number === $at ? new Killed() : null,
                static fn (int $number): ?\Throwable => null,
            );
            try {
                $this->carryOut($remote);
            } catch (Killed) {
                $touched = self::contents($this->live) !== $this->before;
                is_file("$this->own/run/journal") && file_put_contents("$this->own/run/journal", '');
                $result = $this->carryOut();
                if ($touched) {
                    $halfway++;
                    self::assertSame(RunEnd::PutBack, $result->end, "$at: ".$result->cause?->getMessage());
                    self::assertSame($this->before, self::contents($this->live), "$at");
                }
                self::assertNotSame(RunEnd::Refused, $result->end, "$at");
            }
        }
        self::assertGreaterThan(10, $halfway);
    }

    public function test_going_back_after_a_power_cut_can_itself_be_killed(): void
    {
        foreach ([3, 8, 12, 16] as $at) {
            $this->lay();
            $kill = static fn (int $after): \Closure => static fn (int $number): ?\Throwable => $number === $after
                ? new Killed()
                : null;
            $none = static fn (int $number): ?\Throwable => null;
            try {
                $this->carryOut(new FaultyDirectory(new LocalRemoteDirectory($this->live), $kill(20), $none));
            } catch (Killed) {
                file_put_contents("$this->own/run/journal", '');
            }
            try {
                $this->carryOut(new FaultyDirectory(new LocalRemoteDirectory($this->live), $kill($at), $none));
            } catch (Killed) {
                self::assertSame(RunEnd::PutBack, $this->carryOut()->end, "$at");
            }
            self::assertSame($this->before, self::contents($this->live), "$at");
        }
    }

    public function test_a_server_that_keeps_half_and_lists_all_is_never_said_to_be_whole_again(): void
    {
        $remote = new LyingDirectory($this->live);
        $remote->keepsHalf = true;
        $result = $this->carryOut($remote);
        self::assertSame(RunEnd::PutBackUnproven, $result->end);
        self::assertContains('index.html', $result->unproven);
        self::assertContains('css/a.css', $result->unproven);
        self::assertContains('http://site.example/', $result->unproven);
    }

    public function test_a_server_that_alters_bytes_is_found_out_in_every_file_and_on_the_way_back_too(): void
    {
        $remote = new LyingDirectory($this->live);
        $remote->alters = true;
        $result = $this->carryOut($remote);
        self::assertSame(RunEnd::PutBackUnproven, $result->end);
        self::assertContains('index.html', $result->unproven);
        self::assertSame(
            ['index.html' => '~'],
            ['index.html' => substr((string) file_get_contents("$this->live/index.html"), -1)],
            'it really lied',
        );
    }

    public function test_a_program_is_read_back_since_no_page_shows_its_bytes(): void
    {
        $content = $this->store()->put(['<?php echo 1;']);
        $remote = new LyingDirectory($this->live);
        $remote->alters = true;
        $target = Manifest::fromEntries([
            new ManifestEntry(
                RelativePath::fromString('tool.php'),
                EntryKind::File,
                $content->size,
                1,
                null,
                $content->sha256,
            ),
        ]);
        $result = $this->carryOut($remote, target: $target);
        self::assertInstanceOf(ProofFailed::class, $result->cause);
        self::assertStringContainsString('tool.php', $result->cause->getMessage());
        self::assertStringContainsString('Read back', $result->cause->getMessage());
        self::assertFileDoesNotExist("$this->live/tool.php");
    }

    public function test_listings_that_show_nothing_of_a_known_site_are_an_error_and_no_empty_backup(): void
    {
        $remote = new LyingDirectory($this->live);
        $remote->listsNothing = true;
        $known = (new Surveyor(new SequentialPool(new LocalRemoteDirectory($this->live))))->survey(RemotePath::root())
            ->manifest;
        foreach ([$known, Manifest::fromEntries([])] as $last) {
            $result = $this->carryOut($remote, known: $last);
            self::assertSame(RunEnd::Refused, $result->end);
            self::assertStringContainsString('the listing leaves it out', (string) $result->cause?->getMessage());
            self::assertSame([], glob("$this->own/backups/*"));
        }
        $remote->hidesByEveryWay = true;
        $result = $this->carryOut($remote, known: $known);
        self::assertInstanceOf(RunRefused::class, $result->cause);
        self::assertSame(RunRefusal::Collapsed, $result->cause->reason);
        self::assertStringContainsString('0 of the 5 files', $result->cause->getMessage());
        self::assertSame([], glob("$this->own/backups/*"));
        self::assertSame($this->before, self::contents($this->live));
    }

    public function test_a_place_with_nothing_but_directories_was_listed_whole(): void
    {
        $this->live = $this->directory();
        mkdir("$this->live/cgi-bin");
        $result = $this->carryOut();
        self::assertSame(RunEnd::Proven, $result->end, (string) $result->cause?->getMessage());
        self::assertDirectoryExists("$this->live/cgi-bin");
        self::assertSame('the new page', file_get_contents("$this->live/index.html"));
    }

    public function test_a_person_may_say_that_much_is_gone(): void
    {
        $known = (new Surveyor(new SequentialPool(new LocalRemoteDirectory($this->live))))->survey(RemotePath::root())
            ->manifest;
        foreach (['index.html', 'css/a.css', 'keep.txt', 'same.txt'] as $path) {
            unlink("$this->live/$path");
        }
        self::assertSame(RunRefusal::Collapsed, $this->carryOut(known: $known)->cause->reason ?? null);
        self::assertSame(RunEnd::Proven, $this->carryOut(known: $known, accepted: true)->end);
    }

    public function test_what_another_run_lays_down_is_its_own(): void
    {
        $theirs = '.cellarium-other1-0.part';
        file_put_contents("$this->live/$theirs", 'on its way');
        $result = $this->carryOut(isGoing: static fn (string $run): ?bool => $run === 'other1');
        self::assertInstanceOf(RunRefused::class, $result->cause);
        self::assertSame(RunRefusal::PlaceInUse, $result->cause->reason);
        self::assertSame(RunEnd::Proven, $this->carryOut(isGoing: static fn (string $run): ?bool => null)->end);
        self::assertFileExists("$this->live/$theirs", 'a run that is not known here may be going on elsewhere');
        $this->lay();
        file_put_contents("$this->live/$theirs", 'left over');
        self::assertSame(RunEnd::Proven, $this->carryOut(isGoing: static fn (string $run): ?bool => false)->end);
        self::assertFileDoesNotExist("$this->live/$theirs");
    }

    private function operationsOfAGoodRun(): int
    {
        $none = static fn (int $number): ?\Throwable => null;
        $remote = new FaultyDirectory(new LocalRemoteDirectory($this->live), $none, $none);
        self::assertSame(RunEnd::Proven, $this->carryOut($remote)->end);
        self::assertGreaterThan(20, $remote->operations);

        return $remote->operations;
    }
}
