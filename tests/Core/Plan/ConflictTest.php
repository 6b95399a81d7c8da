<?php

declare(strict_types=1);

namespace Tests\Core\Plan;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Answers;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\LiveChanges;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\Policy;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Three sides: what was deployed last, what is live now, and the package. */
final class ConflictTest extends TestCase
{
    private const NOVEMBER_19 = 1_795_046_400;

    /** @param  array<string, string>  $texts  by path; "?" before a text means that its hash is not known */
    private static function side(array $texts, int $modified = 1000): Manifest
    {
        return Manifest::fromEntries(array_map(
            static fn (string $path, string $text): ManifestEntry => new ManifestEntry(
                RelativePath::fromString($path),
                EntryKind::File,
                strlen(ltrim($text, '?')),
                $modified,
                0644,
                $text[0] === '?' ? null : hash('sha256', $text),
            ),
            array_keys($texts),
            $texts,
        ));
    }

    /**
     * @param  array<string, string>  $deployed
     * @param  array<string, string>  $live
     * @param  array<string, string>  $package
     */
    private static function plan(
        array $deployed,
        array $live,
        array $package,
        ?Answers $answers = null,
        int $liveSince = self::NOVEMBER_19,
        int $packageOf = 2000,
    ): Plan {
        return Planner::plan(
            self::side($package, $packageOf),
            self::side($live, $liveSince),
            new Policy(PathPattern::all(['config.php']), ours: array_keys($deployed)),
            self::side($deployed),
            $answers,
        );
    }

    /** @return array<string, string> what becomes of each path, and which question it is */
    private static function told(Plan $plan): array
    {
        $told = [];
        foreach ($plan->items as $item) {
            $told[$item->path->toString()] = $item->change->value
                .($item->conflict === null ? '' : ": {$item->conflict->value}");
        }

        return $told;
    }

    public function test_a_name_in_other_capitals_is_a_question_with_an_answer_for_both_names(): void
    {
        $told = static fn (Answers $answers): array => self::told(Planner::plan(
            self::side(['Logo.svg' => 'new']),
            self::side(['logo.svg' => 'theirs']),
            new Policy,
            null,
            $answers,
        ));

        self::assertSame(['Logo.svg' => 'asked: other_case', 'logo.svg' => 'kept'], $told(Answers::none()));
        self::assertSame(
            ['Logo.svg' => 'left_away: other_case', 'logo.svg' => 'kept'],
            $told(Answers::all(Choice::Theirs)),
        );
        self::assertSame(
            ['Logo.svg' => 'added: other_case', 'logo.svg' => 'set_aside'],
            $told(Answers::all(Choice::Ours)),
        );
        self::assertSame(['Logo.svg' => 'added: other_case', 'logo.svg' => 'kept'], $told(Answers::all(Choice::Both)));
    }

    public function test_a_start_page_that_would_win_over_the_one_that_is_sent_is_a_question(): void
    {
        $told = static fn (Answers $answers, Policy $policy): array => self::told(Planner::plan(
            self::side(['index.php' => 'new', 'blog/index.html' => 'new', 'about.html' => 'new']),
            self::side(['index.html' => 'there', 'blog/index.php' => 'there', 'shop/index.html' => 'there']),
            $policy,
            null,
            $answers,
        ));
        $sent = ['index.php' => 'added', 'blog/index.html' => 'added', 'about.html' => 'added'];
        $order = new Policy(startPages: ['index.html', 'index.php']);
        $rows = [
            [Answers::none(), $order, 'asked: start_page_wins', 'kept: start_page_beside'],
            [Answers::all(Choice::Theirs), $order, 'kept: start_page_wins', 'kept: start_page_beside'],
            [Answers::all(Choice::Ours), $order, 'set_aside: start_page_wins', 'kept: start_page_beside'],
            [
                Answers::none()->with('blog/index.php', Choice::Ours),
                $order,
                'asked: start_page_wins',
                'set_aside: start_page_beside',
            ],
            // What the site keeps goes by its own name only.
            [
                Answers::all(Choice::Ours),
                new Policy(PathPattern::all(['index.html']), startPages: $order->startPages),
                'asked: start_page_wins',
                'kept: start_page_beside',
            ],
            // Where the other one comes first, it is the other way round.
            [
                Answers::none(),
                new Policy(startPages: ['index.php', 'index.html']),
                'kept: start_page_beside',
                'asked: start_page_wins',
            ],
            // The placeholder goes, and so does what the last deployment left.
            [
                Answers::none(),
                new Policy(placeholders: ['index.html'], ours: ['blog/index.php'], startPages: $order->startPages),
                'set_aside',
                'set_aside',
            ],
            // Visitors do not come in above the directory that is served.
            [Answers::none(), new Policy(served: 'public', startPages: $order->startPages), 'kept', 'kept'],
            [Answers::none(), new Policy(byHand: true), 'kept', 'kept'],
        ];
        foreach ($rows as [$answers, $policy, $top, $blog]) {
            self::assertEquals(
                $sent + ['index.html' => $top, 'blog/index.php' => $blog, 'shop/index.html' => 'kept'],
                array_merge($sent, $told($answers, $policy)),
            );
        }
    }

    public function test_capitals_are_no_question_where_the_other_name_goes_anyway_or_is_kept_in_any_case(): void
    {
        $kept = new Policy(PathPattern::all(['logo.svg']));
        foreach ([new Policy(ours: ['logo.svg']), $kept, new Policy(exact: true)] as $policy) {
            $plan = Planner::plan(self::side(['Logo.svg' => 'new']), self::side(['logo.svg' => 'theirs']), $policy);
            self::assertSame('added', self::told($plan)['Logo.svg']);
        }
    }

    /** @return iterable<string, array{array<string, string>, array<string, string>, array<string, string>, string}> */
    public static function sides(): iterable
    {
        yield 'nothing changed there' => [['a' => '1'], ['a' => '1'], ['a' => '2'], 'replaced'];
        yield 'changed there' => [['a' => '1'], ['a' => 'x'], ['a' => '2'], 'asked: changed_live'];
        yield 'changed there, the package as ever' => [['a' => '1'], ['a' => 'x'], ['a' => '1'], 'asked: changed_live'];
        yield 'changed there to what the package has' => [['a' => '1'], ['a' => '2'], ['a' => '2'], 'same'];
        yield 'removed there' => [['a' => '1'], [], ['a' => '2'], 'asked: removed_live'];
        yield 'put there by somebody' => [[], ['a' => 'x'], ['a' => '2'], 'asked: added_live'];
        yield 'put there, the same' => [[], ['a' => '2'], ['a' => '2'], 'same'];
        yield 'changed there, no longer in the package' => [['a' => '1'], ['a' => 'x'], [], 'asked: changed_live'];
        yield 'no longer in the package' => [['a' => '1'], ['a' => '1'], [], 'set_aside'];
        yield 'not read yet, of another size' => [['a' => '1'], ['a' => '?xyz'], ['a' => '2'], 'asked: changed_live'];
        yield 'not read yet, of the same size' => [['a' => '1'], ['a' => '?x'], ['a' => '2'], 'replaced'];
        yield 'new in the package' => [[], [], ['a' => '2'], 'added'];
    }

    /**
     * @param  array<string, string>  $deployed
     * @param  array<string, string>  $live
     * @param  array<string, string>  $package
     */
    #[DataProvider('sides')]
    public function test_what_somebody_changed_on_the_server_is_a_question(
        array $deployed,
        array $live,
        array $package,
        string $expected,
    ): void {
        self::assertSame(['a' => $expected], self::told(self::plan($deployed, $live, $package)));
    }

    public function test_without_an_earlier_deployment_nothing_is_a_question(): void
    {
        $plan = Planner::plan(self::side(['a' => '2']), self::side(['a' => 'x']), new Policy);
        self::assertSame(['a' => 'replaced'], self::told($plan));
    }

    public function test_what_the_site_keeps_is_no_question(): void
    {
        $plan = self::plan(['config.php' => '1'], ['config.php' => 'theirs'], ['config.php' => '2']);
        self::assertSame(['config.php' => 'kept'], self::told($plan));
    }

    /** @return iterable<string, array{Choice, array<string, string>}> */
    public static function answers(): iterable
    {
        yield 'theirs' => [
            Choice::Theirs,
            ['away' => 'left_away: removed_live', 'late' => 'kept: changed_live', 'page.html' => 'kept: changed_live'],
        ];
        yield 'ours' => [
            Choice::Ours,
            [
                'away' => 'added: removed_live',
                'late' => 'set_aside: changed_live',
                'page.html' => 'replaced: changed_live',
            ],
        ];
        yield 'both' => [
            Choice::Both,
            [
                'away' => 'added: removed_live',
                'late' => 'kept: changed_live',
                'page.html' => 'replaced: changed_live',
                'page.live-2026-11-19.html' => 'added',
            ],
        ];
    }

    /** @param  array<string, string>  $expected */
    #[DataProvider('answers')]
    public function test_an_answer_says_what_becomes_of_it(Choice $choice, array $expected): void
    {
        $plan = self::plan(
            ['page.html' => '1', 'away' => '1', 'late' => '1'],
            ['page.html' => 'theirs', 'late' => 'theirs'],
            ['page.html' => '2', 'away' => '2'],
            Answers::all($choice),
        );
        self::assertSame($expected, self::told($plan));
        self::assertSame([], $plan->openQuestions());
        self::assertCount(3, $plan->questions());
    }

    public function test_keeping_both_puts_theirs_under_a_name_that_is_free(): void
    {
        $plan = self::plan(
            ['page.html' => '1', 'page.live-2026-11-19.html' => '1'],
            ['page.html' => 'theirs', 'page.live-2026-11-19.html' => '1'],
            ['page.html' => '2'],
            Answers::none()->with('page.html', Choice::Both),
        );
        $beside = $plan->items[1];
        self::assertSame('page.live-2026-11-19-2.html', (string) $beside->path);
        self::assertSame(hash('sha256', 'theirs'), $beside->target?->sha256);
        self::assertSame(['page.html'], array_map(
            static fn (ManifestEntry $entry): string => (string) $entry->path,
            $plan->target()->all(),
        ), 'and it is not what the package brings');
    }

    public function test_the_newer_of_the_two_wins_only_where_both_times_are_known_and_differ(): void
    {
        $told = static fn (int $live, int $package): array => self::told(self::plan(
            ['a' => '1'],
            ['a' => 'x'],
            ['a' => '2'],
            Answers::all(Choice::Newer),
            $live,
            $package,
        ));
        self::assertSame(['a' => 'kept: changed_live'], $told(3000, 2000));
        self::assertSame(['a' => 'replaced: changed_live'], $told(2000, 3000));
        self::assertSame(['a' => 'asked: changed_live'], $told(2000, 2000));
        self::assertSame(
            ['a' => 'asked: removed_live'],
            self::told(self::plan(['a' => '1'], [], ['a' => '2'], Answers::all(Choice::Newer))),
        );
    }

    public function test_the_nearest_answer_counts_and_the_last_word_of_a_directory_holds_for_all_in_it(): void
    {
        $path = RelativePath::fromString(...);
        $answers = Answers::all(Choice::Ours)
            ->with('catalogue/', Choice::Theirs)
            ->with('catalogue/prices.html', Choice::Both);
        self::assertSame(Choice::Ours, $answers->to($path('index.html')));
        self::assertSame(Choice::Theirs, $answers->to($path('catalogue/winter/a.html')));
        self::assertSame(Choice::Both, $answers->to($path('catalogue/prices.html')));
        self::assertSame(Choice::Ours, $answers->to($path('catalogue-old/a.html')));

        $later = $answers->with('catalogue/', Choice::Ours);
        self::assertSame(Choice::Ours, $later->to($path('catalogue/prices.html')));
        self::assertNull($answers->without('catalogue/prices.html')->to($path('catalogue/prices.html')));
        self::assertSame(Choice::Theirs, $answers->without('catalogue/prices.html')->to($path('catalogue/b.html')));
    }

    public function test_an_answer_holds_for_one_plan_and_the_next_asks_again(): void
    {
        $plan = self::plan(
            ['a' => '1', 'b' => '1', 'c' => '1'],
            ['a' => 'x', 'b' => '1', 'd' => 'y'],
            array_fill_keys(['a', 'b', 'c', 'd'], '2'),
            Answers::all(Choice::Theirs),
        );
        $after = self::side(['a' => 'x', 'b' => '2', 'd' => 'y'], self::NOVEMBER_19);
        $next = Planner::plan(
            self::side(array_fill_keys(['a', 'b', 'c', 'd'], '3')),
            $after,
            new Policy,
            $plan->leaves($after, self::side(['a' => '1', 'b' => '1', 'c' => '1'])),
        );
        self::assertSame([
            'a' => 'asked: changed_live',
            'b' => 'replaced',
            'c' => 'asked: removed_live',
            'd' => 'asked: added_live',
        ], self::told($next));
    }

    public function test_what_changed_after_a_plan_was_made_is_named(): void
    {
        $plan = self::plan([], ['a' => '1', 'b' => '1', 'c' => '1'], ['a' => '2']);
        $now = self::side(['a' => 'longer', 'c' => '1', 'd' => '1'], self::NOVEMBER_19);
        $changes = LiveChanges::since($plan, $now);
        self::assertSame([['d'], ['a'], ['b']], [$changes->added, $changes->changed, $changes->removed]);
    }
}
