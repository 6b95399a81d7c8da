<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Reference\Document;
use Cellarium\Core\Reference\Html;

/** The check for text that was meant to be replaced: filler text, empty titles, what is to come, days gone by. */
final class UnfinishedCheck implements TextCheck
{
    /** Larger ones are no pages that somebody has written; in bytes. */
    private const LONGEST = 1_000_000;

    private const FILLER = '/(?i:\blorem ipsum\b|\bdolor sit amet\b|\bconsectetur adipisc|\b(?:your|insert|'
        .'placeholder|dummy|sample) text here\b|\bplaceholder text\b)|\bTODO\b|\bTBD\b|\bXXX\b/';

    /** One of these is in whatever the patterns find; most pages hold none, and that is quickly seen. */
    private const HINTS = [
        'ipsum', 'dolor sit', 'consectetur', 'text here', 'placeholder text', 'todo', 'tbd', 'xxx',
        'coming soon', 'under construction', 'check back', 'in preparation',
    ];

    private const SOON = '/\bcoming soon\b|\bunder construction\b|\bcheck back (?:soon|later)\b'
        .'|\bpage (?:is )?in preparation\b/i';

    private const TITLES = '/\A(?:untitled(?: (?:document|page))?|(?:new |my )?(?:document|page)|(?:page )?title)\z/i';

    /** @var list<PackageFinding> */
    private array $findings = [];

    private readonly PastDates $dates;

    /** @param  string  $today  as YYYY-MM-DD */
    public function __construct(string $today)
    {
        $this->dates = new PastDates($today);
    }

    public function look(ManifestEntry $entry, string $text, ?Document $document): void
    {
        $path = $entry->path->toString();
        $isPage = preg_match('/\.(?:x?html?|shtml|php|phtml)\z/i', $path) === 1;
        if ($document === null || ! $isPage || $entry->size > self::LONGEST) {
            return;
        }
        $this->title($path, $text, $document);
        if (self::hasHint($text)) {
            $this->filler($path, $text);
        }
        foreach ($this->dates->in($text) as [$sentence, $line]) {
            $this->add(
                FindingCode::UnfinishedDate,
                'says “'.Quote::fromText($sentence).'”, and that day has passed.',
                $path,
                $line,
            );
        }
    }

    public function findings(): array
    {
        return $this->findings;
    }

    private static function hasHint(string $text): bool
    {
        $lower = strtolower($text);
        foreach (self::HINTS as $hint) {
            if (str_contains($lower, $hint)) {
                return true;
            }
        }

        return false;
    }

    private function filler(string $path, string $text): void
    {
        $this->words($path, $text, self::FILLER, FindingCode::UnfinishedFiller);
        $this->words($path, $text, self::SOON, FindingCode::UnfinishedSoon);
    }

    /** Parts of pages have none; nobody sees the title of a page that sends visitors on. */
    private function title(string $path, string $text, Document $document): void
    {
        // What a program puts together is no page yet.
        $written = str_contains($text, '<?')
            ? (string) preg_replace('~<\?(?:php\b|=).*?(?:\?>|\z)~s', '', $text)
            : $text;
        if ($document->sendsOn || preg_match('/<(?:html|head|!doctype html)\b/i', $written) !== 1) {
            return;
        }
        [$title, $at] = $document->title ?? [null, 0];
        $what = match (true) {
            $title === null => 'has no title',
            $title === '' => 'has an empty title',
            preg_match(self::TITLES, $title) === 1 => 'is called “'.Quote::fromText($title).'”',
            default => null,
        };
        $what === null || $this->add(
            FindingCode::UnfinishedTitle,
            "$what, and that is what search engines and tabs show.",
            $path,
            $title === null ? null : Quote::line($text, $at),
        );
    }

    /** The first place of each kind in a page that visitors read. */
    private function words(string $path, string $text, string $pattern, FindingCode $code): void
    {
        foreach (Html::visible($text) as [$part, $offset]) {
            if (preg_match($pattern, $part, $match, PREG_OFFSET_CAPTURE) === 1) {
                [$words, $at] = $match[0];
                $this->add($code, 'says “'.Quote::fromText($words).'”.', $path, Quote::line($text, $offset + $at));

                return;
            }
        }
    }

    private function add(FindingCode $code, string $message, string $path, ?int $line): void
    {
        $this->findings[] = new PackageFinding($code, Severity::Warn, $message, $path, $line);
    }
}
