<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Path\RelativePath;
use Masterminds\HTML5;
use Sabberworm\CSS\Parser;
use Sabberworm\CSS\Parsing\SourceException;
use Sabberworm\CSS\Settings;

/** Looks for mistakes in HTML, CSS, JSON and PHP. Nothing of it is run. */
final readonly class TextMistakes
{
    /** So many are told of one text. */
    private const MOST = 20;

    public function __construct(private PhpSyntax $php)
    {
    }

    /**
     * @param  RelativePath  $file  whose name tells what language it is
     * @return list<TextMistake>
     */
    public function in(RelativePath $file, string $text): array
    {
        $found = match ($file->extension()) {
            'html', 'htm', 'xhtml' => self::html($text),
            'css' => self::css($text),
            'json', 'webmanifest' => JsonSyntax::mistakes($text),
            'php', 'phtml' => $this->php->mistakes($text),
            default => [],
        };

        return array_slice($found, 0, self::MOST);
    }

    /**
     * Those that were not there before: what a person did not write is not held against them.
     *
     * @return list<TextMistake>
     */
    public function newIn(RelativePath $file, string $before, string $after): array
    {
        $old = array_count_values(array_map(
            static fn (TextMistake $mistake): string => $mistake->sentence,
            $this->in($file, $before),
        ));
        $new = [];
        foreach ($this->in($file, $after) as $mistake) {
            $left = $old[$mistake->sentence] ?? 0;
            $left > 0 ? $old[$mistake->sentence]-- : $new[] = $mistake;
        }

        return $new;
    }

    /** @return list<TextMistake> */
    private static function html(string $text): array
    {
        $reader = new HTML5;
        $reader->loadHTML($text);
        $found = [];
        foreach (array_filter($reader->getErrors(), is_string(...)) as $error) {
            $isPlaced = preg_match('/\ALine (\d+), Col \d+: (.+)\z/s', $error, $match) === 1;
            $found[] = $isPlaced
                ? new TextMistake((int) $match[1] ?: null, $match[2])
                : new TextMistake(null, $error);
        }

        return $found;
    }

    /** @return list<TextMistake> the first one: behind it, nothing is understood any more */
    private static function css(string $text): array
    {
        try {
            (new Parser($text, Settings::create()->beStrict()))->parse();

            return [];
        } catch (SourceException $fault) {
            $sentence = (string) preg_replace('/ ?(?:\[line no: \d+\]|line \d+)\z/', '', $fault->getMessage());

            return [new TextMistake($fault->getLineNo() ?: null, trim($sentence))];
        }
    }
}
