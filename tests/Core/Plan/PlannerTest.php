<?php

declare(strict_types=1);

namespace Tests\Core\Plan;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Answers;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanContents;
use Cellarium\Core\Plan\PlanImpossible;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use Cellarium\Core\Plan\Undo;
use Cellarium\Core\Plan\Why;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PlannerTest extends TestCase
{
    private static function file(
        string $path,
        string $text,
        ?int $modified = 1000,
        bool $hashed = true,
    ): ManifestEntry {
        return new ManifestEntry(
            RelativePath::fromString($path),
            EntryKind::File,
            strlen($text),
            $modified,
            0644,
            $hashed ? hash('sha256', $text) : null,
        );
    }

    private static function directory(string $path): ManifestEntry
    {
        return new ManifestEntry(RelativePath::fromString($path), EntryKind::Directory);
    }

    /** @return array<string, array{string, string}> */
    private static function told(Plan $plan): array
    {
        $told = [];
        foreach ($plan->items as $item) {
            $told[$item->path->toString()] = [$item->change->value, $item->why->value];
        }

        return $told;
    }

    public function test_each_path_gets_its_change_and_its_reason(): void
    {
        $target = Manifest::fromEntries([
            self::file('index.html', 'new'),
            self::file('same.css', 'x'),
            self::file('grown.js', 'longer'),
            self::directory('img'),
            self::file('img/a.svg', 'a'),
            self::file('unknown.txt', 'abc'),
            self::file('uploads/mine.txt', 'm'),
        ]);
        $live = Manifest::fromEntries([
            self::file('index.html', 'old'),
            self::file('same.css', 'x'),
            self::file('grown.js', 'long'),
            self::file('default.htm', 'p'),
            self::file('.htaccess', 'h'),
            self::directory('uploads'),
            self::file('uploads/mine.txt', 'theirs'),
            self::file('note.txt', 'n'),
            self::file('unknown.txt', 'abd', 1000, false),
            self::file('gone.html', 'g'),
        ]);
        $policy = new Policy(PathPattern::all(['uploads/']), ['default.htm'], ['gone.html', 'index.html']);
        $plan = Planner::plan($target, $live, $policy);
        self::assertSame([
            '.htaccess' => ['kept', 'host_file'],
            'default.htm' => ['set_aside', 'placeholder'],
            'gone.html' => ['set_aside', 'from_last_deployment'],
            'grown.js' => ['replaced', 'in_package'],
            'img' => ['added', 'in_package'],
            'img/a.svg' => ['added', 'in_package'],
            'index.html' => ['replaced', 'in_package'],
            'note.txt' => ['kept', 'not_ours'],
            'same.css' => ['same', 'in_package'],
            'unknown.txt' => ['replaced', 'not_yet_compared'],
            'uploads' => ['kept', 'site_says'],
            'uploads/mine.txt' => ['kept', 'site_says'],
        ], self::told($plan));
        self::assertSame(['files' => 1, 'bytes' => 1, 'was' => 0], $plan->counts()['added']);
        self::assertSame(['files' => 2, 'bytes' => 2, 'was' => 2], $plan->counts()['set_aside']);
        self::assertSame(1 + 3 + 6 + 3, $plan->bytesToSend());
    }

    public function test_a_plan_survives_being_stored(): void
    {
        $plan = Planner::plan(
            Manifest::fromEntries([self::file('ä/1.html', 'x'), self::directory('ä')]),
            Manifest::fromEntries([self::file('b', 'y')]),
            new Policy(),
        );
        self::assertEquals($plan, Plan::fromText(implode('', iterator_to_array(PlanContents::write($plan), false))));
    }

    public function test_kept_directories_match_whole_names_only(): void
    {
        $plan = Planner::plan(
            Manifest::fromEntries([]),
            Manifest::fromEntries([self::file('uploads2/a', 'a'), self::file('data/up/a', 'a')]),
            new Policy(PathPattern::all(['uploads/', 'data/*/']), [], ['uploads2/a', 'data/up/a']),
        );
        self::assertSame(
            ['data/up/a' => ['kept', 'site_says'], 'uploads2/a' => ['set_aside', 'from_last_deployment']],
            self::told($plan),
        );
    }

    public function test_exact_leaves_nothing_else_but_never_removes_what_is_no_file(): void
    {
        $link = new ManifestEntry(RelativePath::fromString('link'), EntryKind::Link);
        $plan = Planner::plan(
            Manifest::fromEntries([self::file('a', 'a')]),
            Manifest::fromEntries([self::file('.htaccess', 'h'), self::directory('d'), $link]),
            new Policy(PathPattern::all(['d/']), exact: true),
        );
        self::assertSame(
            [
                '.htaccess' => ['set_aside', 'not_in_target'],
                'a' => ['added', 'in_package'],
                'd' => ['set_aside', 'not_in_target'],
                'link' => ['kept', 'not_ours'],
            ],
            self::told($plan),
        );
    }

    public function test_a_file_in_the_place_of_a_directory_is_no_plan(): void
    {
        $this->expectException(PlanImpossible::class);
        $this->expectExceptionMessage('img is a file in the package and a directory on the server');
        Planner::plan(
            Manifest::fromEntries([self::file('img', 'x')]),
            Manifest::fromEntries([self::directory('img')]),
            new Policy,
        );
    }

    public function test_assets_go_before_pages_and_the_start_page_last(): void
    {
        $plan = Planner::plan(
            Manifest::fromEntries([
                self::file('index.html', 'i'),
                self::file('about.html', 'a'),
                self::file('style.css', 's'),
                self::file('sub/index.html', 'j'),
            ]),
            Manifest::fromEntries([]),
            new Policy(),
        );
        $waves = array_map(
            static fn (array $wave): array => array_map(static fn ($item): string => $item->path->toString(), $wave),
            $plan->waves(['index.html']),
        );
        self::assertSame(
            ['assets' => ['style.css'], 'pages' => ['about.html', 'sub/index.html'], 'start' => ['index.html']],
            $waves,
        );
    }

    public function test_case_clashes_are_told(): void
    {
        $plan = Planner::plan(
            Manifest::fromEntries([self::file('assets/Logo.svg', 'x')]),
            Manifest::fromEntries([self::file('assets/logo.svg', 'x')]),
            new Policy(),
        );
        self::assertSame([['assets/Logo.svg', 'assets/logo.svg']], $plan->caseClashes());
    }

    public function test_hashes_are_taken_over_only_where_time_and_size_agree_and_lie_back_far_enough(): void
    {
        $known = Manifest::fromEntries(
            [self::file('a', 'a', 100), self::file('b', 'b', 100), self::file('c', 'c', 500)],
        );
        $listed = Manifest::fromEntries([
            self::file('a', 'a', 100, false),
            self::file('b', 'b', 101, false),
            self::file('c', 'c', 500, false),
            self::file('d', 'd', 1, false),
        ]);
        $with = $listed->withKnownHashes($known, 500);
        self::assertSame(hash('sha256', 'a'), $with->get('a')?->sha256);
        self::assertNull($with->get('b')?->sha256);
        self::assertNull($with->get('c')?->sha256, 'changed in the second it was last seen in');
        self::assertNull($with->get('d')?->sha256);
    }

    public function test_undo_brings_back_what_was_there_and_touches_nothing_else(): void
    {
        $before = Manifest::fromEntries([
            self::file('index.html', 'old'),
            self::file('default.htm', 'p'),
            self::file('note', 'n'),
        ]);
        $target = Manifest::fromEntries(
            [self::file('index.html', 'new!'), self::directory('img'), self::file('img/a', 'a')],
        );
        $done = Planner::plan($target, $before, new Policy(placeholders: ['default.htm']));
        $after = Manifest::fromEntries([
            self::file('index.html', 'new!', 2000),
            self::directory('img'),
            self::file('img/a', 'a', 2000),
            self::file('note', 'n'),
        ]);
        $undo = Undo::fromPlan($done, $before, $after, $after);
        self::assertSame([], $undo->changedSince);
        $back = Planner::plan($undo->target, $after, new Policy(exact: true));
        self::assertSame(
            [
                'default.htm' => 'added',
                'img' => 'set_aside',
                'img/a' => 'set_aside',
                'index.html' => 'replaced',
                'note' => 'same',
            ],
            array_map(static fn (array $told): string => $told[0], self::told($back)),
        );

        $theirs = $after->with([self::file('img/b', 'theirs', 3000), self::file('index.html', 'edit', 3000)]);
        $undo = Undo::fromPlan($done, $before, $after, $theirs);
        self::assertSame(['index.html'], $undo->changedSince);
        self::assertNotNull($undo->target->get('img'), 'somebody else has a file in it');
        self::assertNotNull($undo->target->get('img/b'));
        self::assertNull($undo->target->get('img/a'));
    }

    /**
     * @param  array<string, Choice>  $answers
     * @param  array<string, string>  $expected  what becomes of each, where it is not left as it is
     */
    #[DataProvider('waysBack')]
    public function test_going_back_asks_about_what_somebody_changed_since_and_does_the_rest(
        array $answers,
        array $expected,
    ): void {
        $before = Manifest::fromEntries(
            [self::file('index.html', 'old'), self::file('gone', 'was'), self::file('note', 'n')],
        );
        $made = [self::file('index.html', 'new!'), self::directory('img'), self::file('img/a', 'a')];
        $after = Manifest::fromEntries([...$made, self::file('img/b', 'b'), self::file('note', 'n')]);
        $done = Planner::plan(
            Manifest::fromEntries([...$made, self::file('img/b', 'b')]),
            $before,
            new Policy(ours: ['gone']),
        );
        $live = $after->without(['img/b'])->with([
            self::file('index.html', 'edit', 3000, false),
            self::file('img/a', 'mine', 3000),
            self::file('gone', 'put', 3000),
        ]);
        $undo = Undo::fromPlan($done, $before, $after, $live);
        self::assertEqualsCanonicalizing(['index.html', 'img/a', 'img/b', 'gone'], $undo->changedSince);
        $plan = Planner::plan(
            $undo->target,
            $live,
            new Policy(exact: true, asks: $undo->changedSince),
            $after,
            array_reduce(
                array_keys($answers),
                static fn (Answers $given, string $path): Answers => $given->with($path, $answers[$path]),
                Answers::none(),
            ),
        );
        self::assertSame($expected, array_filter(
            array_map(static fn (array $told): string => $told[0], self::told($plan)),
            static fn (string $change): bool => $change !== 'same' && $change !== 'kept',
        ));
    }

    /** @return array<string, array{array<string, Choice>, array<string, string>}> */
    public static function waysBack(): array
    {
        return [
            'nothing said yet: nothing of theirs is touched, and the folder stays for it' => [
                [],
                ['gone' => 'asked', 'img/a' => 'asked', 'index.html' => 'asked'],
            ],
            'back with everything' => [
                ['gone' => Choice::Ours, 'img/a' => Choice::Ours, 'index.html' => Choice::Ours],
                [
                    'gone' => 'replaced',
                    'img' => 'set_aside',
                    'img/a' => 'set_aside',
                    'index.html' => 'replaced',
                ],
            ],
            'theirs stays' => [
                ['gone' => Choice::Theirs, 'img/a' => Choice::Theirs, 'index.html' => Choice::Theirs],
                [],
            ],
            'some of each' => [
                ['gone' => Choice::Both, 'img/a' => Choice::Theirs, 'index.html' => Choice::Ours],
                ['gone' => 'replaced', 'gone.live-1970-01-01' => 'added', 'index.html' => 'replaced'],
            ],
        ];
    }

    public function test_unknown_contents_are_never_sent(): void
    {
        $entry = self::file('a', 'a', 5, false);
        self::assertSame(
            Change::Same,
            Planner::plan(
                Manifest::fromEntries([$entry]),
                Manifest::fromEntries([self::file('a', 'a', 5)]),
                new Policy(),
            )->items[0]
                ->change,
        );
        $this->expectException(PlanImpossible::class);
        Planner::plan(Manifest::fromEntries([$entry]), Manifest::fromEntries([self::file('a', 'b', 6)]), new Policy);
    }

    public function test_why_has_words(): void
    {
        foreach (Why::cases() as $why) {
            self::assertTrue($why === Why::InPackage || $why->sentence() !== '');
        }
    }
}
