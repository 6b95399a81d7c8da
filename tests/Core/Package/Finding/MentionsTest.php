<?php

declare(strict_types=1);

namespace Tests\Core\Package\Finding;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Finding\Mentions;
use Cellarium\Core\Path\RelativePath;
use PHPUnit\Framework\TestCase;

/** Names that stand in other texts, however those are put together. */
final class MentionsTest extends TestCase
{
    private const NAMES = ['boat.min.png', 'pier.svg', 'harbour wall.jpg', 'a.gif', 'none.png'];

    private ?string $limit = null;

    protected function tearDown(): void
    {
        $this->limit === null || ini_set('pcre.backtrack_limit', $this->limit);
        parent::tearDown();
    }

    public function test_a_name_is_found_wherever_it_stands(): void
    {
        $mentions = $this->mentions();
        $mentions->note('a.js', 'load("../img/boat.min.png"); x = "..\\\\..pier.svg"; see harbour%20wall.jpg, a.gif.');

        self::assertSame(
            ['boat.min.png', 'pier.svg', 'harbour wall.jpg', 'a.gif'],
            array_values(array_filter(self::NAMES, $mentions->has(...))),
        );
    }

    public function test_its_own_name_says_nothing(): void
    {
        $mentions = $this->mentions();
        $mentions->note('a.gif', 'a.gif');

        self::assertFalse($mentions->has('a.gif'));
    }

    public function test_where_a_text_could_not_be_read_nothing_is_said_to_be_named_nowhere(): void
    {
        $this->limit = (string) ini_set('pcre.backtrack_limit', '100');
        $mentions = $this->mentions();
        $mentions->note('a.js', str_repeat('lorem.ipsum', 10_000));

        self::assertTrue($mentions->has('none.png'));
    }

    private function mentions(): Mentions
    {
        return new Mentions(Manifest::fromEntries(array_map(
            static fn (string $name): ManifestEntry => new ManifestEntry(
                RelativePath::fromString($name),
                EntryKind::File,
                1,
            ),
            self::NAMES,
        )));
    }
}
