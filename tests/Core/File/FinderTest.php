<?php

declare(strict_types=1);

namespace Tests\Core\File;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\File\FileMatches;
use Cellarium\Core\File\FileQuery;
use Cellarium\Core\File\Finder;
use Cellarium\Core\File\FoundFile;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\TransferFailed;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\FaultyDirectory;
use Tests\Support\LocalRemoteDirectory;
use Tests\Support\Scratch;

/** Looking for files from a directory down. */
final class FinderTest extends TestCase
{
    use Scratch;

    private string $root;

    protected function setUp(): void
    {
        $this->root = $this->directory();
        foreach ([
            'a/one.html' => "first\nCall 0211 55 now\nlast",
            'a/deep/two.html' => "0211 55\n0211 55\n\n0211 55\n0211 55\n0211 55\n0211 55",
            'b/Ä b 100%.txt' => mb_convert_encoding('Straße 0211 55', 'ISO-8859-1', 'UTF-8'),
            'b/picture.png' => "0211 55\0",
            'b/data.bin' => "0211 55\0",
            'long.txt' => '0211 55'.str_repeat('.', 5000),
        ] as $path => $bytes) {
            @mkdir(dirname("$this->root/$path"), recursive: true);
            file_put_contents("$this->root/$path", $bytes);
            touch("$this->root/$path", 1_700_000_000 + strlen($path));
        }
    }

    private function find(FileQuery $fileQuery, ?\Closure $before = null, ?\Closure $hear = null): FileMatches
    {
        $scratch = $this->directory();
        $remote = new LocalRemoteDirectory($this->root);
        $remote = $before === null ? $remote : new FaultyDirectory($remote, $before, static fn (): ?\Throwable => null);
        try {
            return (new Finder(
                new SequentialPool($remote),
                $scratch,
                $hear ?? static function (): void {
                },
            ))->find(RemotePath::root(), $fileQuery);
        } finally {
            self::assertSame([], array_diff((array) scandir($scratch), ['.', '..']), 'nothing of it is left here');
        }
    }

    /** @return array<string, array{FileQuery, list<string>}> */
    public static function queries(): array
    {
        return [
            'a part of a name, whatever its capitals' => [new FileQuery('ä B'), ['/b/Ä b 100%.txt']],
            'a pattern, and folders too' => [new FileQuery('?'), ['/a', '/b']],
            'at least so large' => [new FileQuery(smallest: 5007), ['/long.txt']],
            'at most so large' => [new FileQuery('*.html', largest: 27), ['/a/one.html']],
            'a second, from and until' => [
                new FileQuery(from: 1_700_000_010, until: 1_700_000_011),
                ['/a/one.html', '/b/data.bin'],
            ],
            'nothing of that name' => [new FileQuery('nothing*'), []],
            'a backslash is a letter' => [new FileQuery('one\\*'), []],
        ];
    }

    /** @param  list<string>  $expected */
    #[DataProvider('queries')]
    public function test_what_is_looked_for_is_found(FileQuery $fileQuery, array $expected): void
    {
        $findings = $this->find($fileQuery);

        self::assertEqualsCanonicalizing(
            $expected,
            array_map(static fn (FoundFile $found): string => $found->path->toString(), $findings->found),
        );
        self::assertSame([4, 9, []], [$findings->directories, $findings->names, $findings->unread]);
    }

    public function test_lines_are_told_of_text_in_any_encoding_and_of_nothing_else(): void
    {
        $findings = $this->find(new FileQuery(text: '0211 55', mostText: 5000));

        $lines = [];
        foreach ($findings->found as $found) {
            $lines[$found->path->toString()] = [$found->count, $found->lines];
        }
        self::assertEquals([
            '/a/one.html' => [1, [[2, 'Call 0211 55 now']]],
            '/a/deep/two.html' => [6, [[1, '0211 55'], [2, '0211 55'], [4, '0211 55'], [5, '0211 55'], [6, '0211 55']]],
            '/b/Ä b 100%.txt' => [1, [[1, 'Straße 0211 55']]],
        ], $lines);
        self::assertSame([4, 1], [$findings->read, $findings->tooLarge]);
        self::assertSame([], $this->find(new FileQuery(text: 'call 0211', exactCase: true))->found);
        self::assertSame(['Call ', '0211 55', ' now'], (new FileQuery(text: '0211 55'))->parted('Call 0211 55 now'));
    }

    public function test_what_cannot_be_read_is_told_and_the_rest_is_found(): void
    {
        $refused = RemoteFailure::while('listing', FailureReason::Forbidden);
        $findings = $this->find(
            new FileQuery('*'),
            static fn (int $number): ?\Throwable => $number === 2 ? $refused : null,
        );

        self::assertSame([2, 1], [$findings->directories, count($findings->unread)]);
        self::assertSame('the server does not allow it', $findings->unread[0][1]);
        self::assertNotSame([], $findings->found);

        $this->expectException(TransferFailed::class);
        $gone = RemoteFailure::while('listing', FailureReason::Disconnected);
        $this->find(new FileQuery('*'), static fn (int $number): ?\Throwable => $number > 2 ? $gone : null);
    }

    public function test_it_is_cancelled_between_two_directories(): void
    {
        $seen = 0;
        try {
            $this->find(new FileQuery('*'), null, static function (FileMatches $findings) use (&$seen): void {
                $seen = $findings->directories;
                throw Cancelled::byAPerson();
            });
            self::fail('It went on.');
        } catch (Cancelled) {
            self::assertSame(1, $seen);
        }
    }

    public function test_more_than_anybody_reads_ends_it(): void
    {
        mkdir("$this->root/many");
        for ($i = 0; $i <= FileMatches::MOST; $i++) {
            touch("$this->root/many/$i.log");
        }

        $findings = $this->find(new FileQuery('*.log'));

        self::assertSame([FileMatches::MOST, true], [count($findings->found), $findings->isCut]);
    }
}
