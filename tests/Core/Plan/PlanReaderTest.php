<?php

declare(strict_types=1);

namespace Tests\Core\Plan;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\PlanContents;
use Cellarium\Core\Plan\PlanDirectory;
use Cellarium\Core\Plan\PlanFilter;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\Planner;
use Cellarium\Core\Plan\PlanReader;
use Cellarium\Core\Plan\Policy;
use PHPUnit\Framework\TestCase;

final class PlanReaderTest extends TestCase
{
    /** Directories whose names begin alike, and names that JSON writes otherwise. */
    private const PACKAGE = [
        'a-b/inner.html',
        'a.html',
        'a/one.html',
        'a/z/deep.css',
        'a/z/deeper/x "q".css',
        'A/other.html',
        'index.html',
        'Ärmel.html',
        '404/0',
    ];

    private function reader(): PlanReader
    {
        $entry = static fn (string $path, string $text): ManifestEntry => new ManifestEntry(
            RelativePath::fromString($path),
            EntryKind::File,
            strlen($text),
            1,
            null,
            hash('sha256', $text),
        );
        $plan = Planner::plan(
            Manifest::fromEntries([
                ...array_map(static fn (string $path): ManifestEntry => $entry($path, 'new'), self::PACKAGE),
                new ManifestEntry(RelativePath::fromString('empty'), EntryKind::Directory, mode: 0777),
            ]),
            Manifest::fromEntries([
                $entry('a/one.html', 'old'),
                $entry('index.html', 'edited'),
                $entry('note.txt', 'n'),
                new ManifestEntry(RelativePath::fromString('link'), EntryKind::Link),
            ]),
            new Policy,
            Manifest::fromEntries([$entry('a/one.html', 'old'), $entry('index.html', 'ours'), $entry('note.txt', 'n')]),
        );
        $text = fopen('php://temp', 'w+b');
        self::assertIsResource($text);
        $lines = PlanContents::write($plan);
        foreach ($lines as $line) {
            fwrite($text, $line);
        }

        return new PlanReader(
            $text,
            PlanContents::fromText(implode('', iterator_to_array($lines->getReturn()->lines(), false))),
        );
    }

    /**
     * @param  list<PlanItem>  $items
     * @return list<string>
     */
    private static function paths(array $items): array
    {
        return array_map(static fn (PlanItem $item): string => (string) $item->path, $items);
    }

    public function test_a_directory_shows_what_lies_right_in_it(): void
    {
        $reader = $this->reader();
        $inside = static fn (string $directory): array => array_map(
            static fn (PlanDirectory $one): string => $one->path,
            $reader->contents->inside($directory),
        );
        self::assertSame(['404', 'A', 'a', 'a-b', 'empty'], $inside(''));
        self::assertSame(['a/z'], $inside('a'));
        self::assertSame(
            ['a.html', 'index.html', 'link', 'note.txt', 'Ärmel.html'],
            self::paths($reader->files('', new PlanFilter)),
        );
        self::assertSame(['a/one.html'], self::paths($reader->files('a', new PlanFilter)));
        self::assertSame(['a/z/deeper/x "q".css'], self::paths($reader->files('a/z/deeper', new PlanFilter)));
        self::assertSame(['404/0'], self::paths($reader->files('404', new PlanFilter)));
        self::assertSame([], $reader->files('empty', new PlanFilter));
        self::assertTrue($reader->contents->directories['empty']->isEmpty());
        self::assertFalse($reader->contents->directories['a']->isEmpty());
        self::assertSame([], $reader->files('nowhere', new PlanFilter));
    }

    public function test_a_directory_sums_up_what_lies_below_it(): void
    {
        $contents = $this->reader()->contents;
        $top = $contents->directories[''];
        self::assertEquals(
            [
                'added' => 7,
                'replaced' => 1,
                'asked' => 1,
                'kept' => 1,
            ],
            $top->changes,
        );
        self::assertSame([1, 3, 9], [$top->questions, $top->live, $top->target]);
        self::assertEquals(['added' => 2, 'replaced' => 1], $contents->directories['a']->changes);
        self::assertSame(2, $contents->directories['a']->matching(new PlanFilter(Change::Add)));
        self::assertSame([Change::Add, 0777], [
            $contents->directories['empty']->change,
            $contents->directories['empty']->mode,
        ]);
    }

    public function test_files_are_found_by_change_by_question_and_by_a_part_of_their_path(): void
    {
        $reader = $this->reader();
        $found = static function (PlanFilter $filter, int $from = 0, int $most = 10) use ($reader): array {
            [$items, $count] = $reader->search($filter, $from, $most);

            return [self::paths($items), $count];
        };
        self::assertSame([['index.html'], 1], $found(new PlanFilter(questions: true)));
        self::assertSame([['a/one.html'], 1], $found(new PlanFilter(Change::Replace)));
        self::assertSame([['a/z/deep.css', 'a/z/deeper/x "q".css'], 2], $found(new PlanFilter(name: 'Z/DEEP')));
        self::assertSame([['Ärmel.html'], 1], $found(new PlanFilter(name: 'ärm')));
        self::assertSame([['a-b/inner.html', 'a.html'], 7], $found(new PlanFilter(Change::Add), 2, 2));
        self::assertSame([[], 0], $found(new PlanFilter(Change::SetAside)));
    }

    public function test_a_text_that_was_cut_is_an_error_and_no_shorter_plan(): void
    {
        $reader = $this->reader();
        $cut = new PlanReader(fopen('data:,{}', 'rb'), $reader->contents);
        $this->expectException(\UnexpectedValueException::class);
        $cut->search(new PlanFilter, 0, 10);
    }
}
