<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** The kinds of files that hold references, by their endings, and the reader of each. */
final class Documents
{
    private const PAGES = ['html', 'htm', 'xhtml', 'svg', 'php', 'phtml', 'shtml'];

    private const SCRIPTS = ['js', 'mjs'];

    /** Larger ones are not written by hand, and nobody waits for them; in bytes. */
    private const LONGEST = 16_000_000;

    public static function isOne(string $name, int $bytes): bool
    {
        return $bytes <= self::LONGEST && in_array(
            self::ending($name),
            [...self::PAGES, ...self::SCRIPTS, 'css', 'webmanifest', 'json'],
            true,
        );
    }

    /** @throws \RuntimeException when it cannot be read as a whole */
    public static function read(string $name, string $text): Document
    {
        $ending = self::ending($name);
        if (in_array($ending, self::PAGES, true)) {
            return Html::scan($text);
        }
        $document = new Document($text);
        if (in_array($ending, self::SCRIPTS, true)) {
            Script::scan($document, $text);
        } elseif ($ending === 'css') {
            Css::scan($document, $text);
            Script::sourceMap($document, $text);
        } elseif ($ending === 'webmanifest' || basename($name) === 'manifest.json') {
            JsonReferences::ofWebManifest($document, $text);
        } else {
            JsonReferences::ofFeed($document, $text);
        }

        return $document;
    }

    private static function ending(string $name): string
    {
        return strtolower(pathinfo($name, PATHINFO_EXTENSION));
    }
}
