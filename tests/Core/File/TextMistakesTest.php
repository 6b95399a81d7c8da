<?php

declare(strict_types=1);

namespace Tests\Core\File;

use Cellarium\Core\File\JsonSyntax;
use Cellarium\Core\File\PhpSyntax;
use Cellarium\Core\File\TextMistake;
use Cellarium\Core\File\TextMistakes;
use Cellarium\Core\Path\RelativePath;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class TextMistakesTest extends TestCase
{
    /** @return iterable<string, array{string, string, int|null}> */
    public static function wrong(): iterable
    {
        yield 'HTML' => ['a.html', "<!doctype html>\n<title>x</title>\n<p\n<b>x</b>", 4];
        yield 'CSS' => ['a.css', "a { color: red }\n\n}", 3];
        yield 'JSON, a comma at the end' => ['a.json', "{\n\"a\": 1,\n}", 3];
        yield 'JSON, cut off' => ['a.json', "{\n\"a\": [1,", 2];
        yield 'JSON, a word' => ['a.json', "[\nyes]", 2];
        yield 'PHP' => ['a.php', "<?php\n\necho 'a'\necho 'b';", 4];
    }

    #[DataProvider('wrong')]
    public function test_a_mistake_is_told_with_its_line(string $name, string $text, ?int $line): void
    {
        $found = (new TextMistakes(new PhpSyntax))->in(RelativePath::fromString($name), $text);

        self::assertNotSame([], $found);
        self::assertSame($line, $found[0]->line, $found[0]->sentence);
    }

    public function test_what_is_right_has_none(): void
    {
        $mistakes = new TextMistakes(new PhpSyntax);
        foreach ([
            'a.html' => "<!doctype html>\n<html lang=en><head><title>x</title></head><body><p>x</p></body></html>",
            'a.css' => '@media (min-width: 1px) { a > b::after { color: #fff; margin: 0 auto } }',
            'a.json' => '{"a": [1, -2.5e3, true, null, "ä\\u00e4\\n"], "b": {}, "c": []}',
            'a.php' => '<?php enum A: string { case B = "b"; } ?><p><?= 1 ?></p>',
            'a.txt' => '}{',
        ] as $name => $text) {
            $found = $mistakes->in(RelativePath::fromString($name), $text);
            self::assertSame([], array_map(static fn (TextMistake $one): string => $one->sentence, $found), $name);
        }
    }

    public function test_a_program_is_read_and_never_run(): void
    {
        $touched = sys_get_temp_dir().'/run-'.bin2hex(random_bytes(6));

        (new PhpSyntax)->mistakes("<?php touch('$touched');");

        self::assertFileDoesNotExist($touched);
    }

    public function test_what_was_wrong_before_is_not_held_against_anybody(): void
    {
        $before = "<!doctype html>\n<title>x</title>\n<p\n<b>x</b>";

        self::assertSame([], (new TextMistakes(new PhpSyntax))->newIn(
            RelativePath::fromString('a.html'),
            $before,
            "<!doctype html>\n<title>x</title>\n<h1>More</h1>\n<p\n<b>x</b>",
        ));
    }

    /** The two agree on every text that is made from JSON by taking signs out or putting them in. */
    public function test_json_is_right_exactly_where_php_takes_it(): void
    {
        mt_srand(3);
        $right = '{"a": [1, 2.5e-3, "x\\"y", true], "b": {"c": null}, "d": []}';
        for ($round = 0; $round < 3000; $round++) {
            $at = mt_rand(0, strlen($right) - 1);
            $sign = ['', ',', '}', ']', '"', ' ', '0', 'x'][mt_rand(0, 7)];
            $text = substr($right, 0, $at).$sign.substr($right, $at + mt_rand(0, 1));
            json_decode($text);
            self::assertSame(json_last_error() === JSON_ERROR_NONE, JsonSyntax::mistakes($text) === [], $text);
        }
    }
}
