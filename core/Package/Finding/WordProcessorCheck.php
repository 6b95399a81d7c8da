<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Reference\Document;

/** Traces of programs that write letters and not pages: their quotes, their marks, their formats. */
final class WordProcessorCheck implements TextCheck
{
    private const PAGE = '/\.(?:x?html?|shtml|php\d?|phtml)\z/i';

    /** A name and a value that begins with a quote of typography, in UTF-8 or Windows-1252. */
    private const QUOTES = '/(?<![\w:-])([\w:-]++)\s*+=\s*+'
        .'(?:\xe2\x80[\x98-\x9f\xb2\xb3]|\xc2[\xab\xbb]|[\x91-\x94](?![\x80-\xbf])|&[lrb]dquo;)/i';

    /** A tag up to one of its attributes. */
    private const WITHIN_TAG = '/\A<[a-z][a-z0-9]*\s(?:[^<>"\']|"[^"]*"|\'[^\']*\')*\z/i';

    /** In bytes; nobody writes one that is longer. */
    private const LONGEST_TAG = 4_000;

    /** Looked at in one text, so that one made of nothing else takes no time. */
    private const MOST_QUOTES = 1_000;

    /** What must be the first bytes of what is sent, or of what a server reads as settings. */
    private const FIRST_BYTES_COUNT = '/\.(?:php\d?|phtml|cgi|pl|py)\z|(?:\A|\/)\.htaccess\z/i';

    /** How letters of a word processor, spreadsheets and documents begin: ZIP, RTF, PDF, OLE. */
    private const NO_TEXT = '/\A(?:PK\x03\x04|\{\\\\rtf|%PDF-|\xd0\xcf\x11\xe0)/';

    private const DOCUMENT = '/\.(?:x?html?|shtml|css|m?js|svg|php\d?|phtml|txt|xml)\z/i';

    /** @var list<PackageFinding> */
    private array $findings = [];

    public function look(ManifestEntry $entry, string $text, ?Document $document): void
    {
        $path = $entry->path->toString();
        if (preg_match(self::DOCUMENT, $path) === 1 && preg_match(self::NO_TEXT, $text) === 1) {
            $this->findings[] = new PackageFinding(
                FindingCode::FileEnding,
                Severity::Warn,
                'is no text, whatever its ending says: it was saved in the format of another program, and visitors '
                    .'get signs without sense. Export it anew.',
                $path,
            );

            return;
        }
        if (preg_match(self::FIRST_BYTES_COUNT, $path) === 1 && str_starts_with($text, "\xef\xbb\xbf")) {
            $this->findings[] = new PackageFinding(
                FindingCode::TextMark,
                Severity::Warn,
                'begins with a byte order mark, which the server reads or sends before anything else: sign-ins and '
                    .'redirects fail. Save it as UTF-8 without the mark.',
                $path,
                1,
            );
        }
        preg_match(self::PAGE, $path) === 1 && $this->quotes($path, $text);
    }

    public function findings(): array
    {
        return $this->findings;
    }

    private function quotes(string $path, string $text): void
    {
        $attribute = self::firstInCurlyQuotes($text);
        if ($attribute !== null) {
            [$name, $at] = $attribute;
            $this->findings[] = new PackageFinding(
                FindingCode::TextQuotes,
                Severity::Warn,
                "has curly quotes around its attribute $name: browsers take them for a part of the value. "
                    .'Write straight ones.',
                $path,
                Quote::line($text, $at),
            );
        }
    }

    /** @return array{string, int}|null its name and where it stands */
    private static function firstInCurlyQuotes(string $text): ?array
    {
        for ($number = 0, $from = 0; $number < self::MOST_QUOTES; $number++) {
            if (preg_match(self::QUOTES, $text, $match, PREG_OFFSET_CAPTURE, $from) !== 1) {
                return null;
            }
            [$name, $at] = $match[1];
            $before = substr($text, max(0, $at - self::LONGEST_TAG), min($at, self::LONGEST_TAG));
            if (preg_match(self::WITHIN_TAG, (string) strrchr($before, '<')) === 1) {
                return [$name, $at];
            }
            $from = $match[0][1] + strlen($match[0][0]);
        }

        return null;
    }
}
