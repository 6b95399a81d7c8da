<?php

declare(strict_types=1);

namespace Tests\Architecture;

use PhpParser\Node\Stmt\ClassLike;
use PhpParser\Node\Stmt\Namespace_;
use PhpParser\NodeFinder;
use PhpParser\ParserFactory;
use PHPUnit\Framework\TestCase;

/** How classes are named and described: by nouns of the trade, and by what they are. */
final class WordsTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';

    /** Nouns of the trade that end like participles, and an exception that is named after what happened. */
    private const NOUNS = ['Cancelled', 'Closing', 'Finding', 'Listing', 'Listings'];

    /** A docblock says what a class is; one that begins like this says how it feels to read it. */
    private const NO_BEGINNING = '/\A(?:What|Where|How|Which|Who|Whether|That)\b/';

    public function test_a_class_is_described_by_what_it_is(): void
    {
        $wrong = [];
        foreach (self::types() as $name => $description) {
            preg_match(self::NO_BEGINNING, $description) === 1 && $wrong[] = "$name: $description";
        }

        self::assertSame([], $wrong);
    }

    public function test_no_class_is_called_by_a_bare_participle(): void
    {
        $wrong = [];
        foreach (array_keys(self::types()) as $name) {
            $short = substr((string) strrchr("\\$name", '\\'), 1);
            preg_match('/\A[A-Z][a-z]+(?:ing|ings|ed|ought)\z/', $short) === 1
                && ! in_array($short, self::NOUNS, true)
                && $wrong[] = $name;
        }

        self::assertSame([], $wrong);
    }

    /** @return array<string, string> the first words of the docblock, "" where there is none, by class */
    private static function types(): array
    {
        $types = [];
        $parser = (new ParserFactory)->createForHostVersion();
        foreach (['core', 'app', 'standin/src'] as $room) {
            $files = new \RecursiveDirectoryIterator(self::ROOT."/$room", \FilesystemIterator::SKIP_DOTS);
            foreach (new \RecursiveIteratorIterator($files) as $file) {
                $code = $parser->parse((string) file_get_contents($file->getPathname())) ?? [];
                $namespace = (new NodeFinder)->findFirstInstanceOf($code, Namespace_::class);
                $type = (new NodeFinder)->findFirstInstanceOf($code, ClassLike::class);
                if ($type !== null) {
                    $words = trim((string) $type->getDocComment()?->getText(), "/* \n");
                    $types["$namespace?->name\\$type->name"] = $words;
                }
            }
        }
        self::assertGreaterThan(700, count($types));

        return $types;
    }
}
