<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\EntryKind;

/** A search among files: names, text, size and age. */
final readonly class FileQuery
{
    private const EXCERPT = 160;

    private const LINES = 5;

    private NamePattern $pattern;

    /**
     * @param  int|null  $smallest  in bytes; with it or $largest only files are found
     * @param  int|null  $from  changed then or later, seconds since 1970, UTC
     * @param  int|null  $until  changed before then
     * @param  string  $text  within text files; "" for none
     * @param  int  $mostText  what is larger is not read for it, in bytes; TextFile::MOST at the most
     */
    public function __construct(
        public string $name = '',
        public ?int $smallest = null,
        public ?int $largest = null,
        public ?int $from = null,
        public ?int $until = null,
        public string $text = '',
        public bool $exactCase = false,
        public int $mostText = TextFile::MOST,
    ) {
        $this->pattern = new NamePattern($name);
    }

    /** Whether it is what is looked for, as far as a listing says. */
    public function fits(RemoteEntry $entry): bool
    {
        return $this->pattern->fits($entry->name)
            && ($entry->kind === EntryKind::File || $this->takesAnyKind())
            && ($this->smallest === null || ($entry->size ?? 0) >= $this->smallest)
            && ($this->largest === null || ($entry->size ?? 0) <= $this->largest)
            // What has no time is not said to be old or new.
            && ($this->from === null || ($entry->modified !== null && $entry->modified >= $this->from))
            && ($this->until === null || ($entry->modified !== null && $entry->modified < $this->until));
    }

    /**
     * The lines that say it, the first few of them.
     *
     * @return array{int, list<array{int, string}>} how many lines; of the first their numbers, and what stands there
     *
     * @throws NotText
     */
    public function linesOf(string $bytes): array
    {
        $text = TextFile::fromBytes($bytes)->edited();
        $count = 0;
        $lines = [];
        if ($this->at($text) === null) {
            return [0, []];
        }
        foreach (explode("\n", $text) as $index => $line) {
            $at = $this->at($line);
            if ($at !== null && ++$count <= self::LINES) {
                $lines[] = [$index + 1, self::excerpt($line, $at)];
            }
        }

        return [$count, $lines];
    }

    /**
     * A line taken apart where it says it.
     *
     * @return array{string, string, string} what stands before, what was looked for, what stands behind
     */
    public function parted(string $line): array
    {
        $at = $this->text === '' ? null : $this->at($line);
        $length = mb_strlen($this->text);

        return $at === null
            ? [$line, '', '']
            : [mb_substr($line, 0, $at), mb_substr($line, $at, $length), mb_substr($line, $at + $length)];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'smallest' => $this->smallest,
            'largest' => $this->largest,
            'from' => $this->from,
            'until' => $this->until,
            'text' => $this->text,
            'exact_case' => $this->exactCase,
            'most_text' => $this->mostText,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('name'),
            $fields->numberOrNull('smallest'),
            $fields->numberOrNull('largest'),
            $fields->numberOrNull('from'),
            $fields->numberOrNull('until'),
            $fields->text('text'),
            $fields->flag('exact_case'),
            $fields->number('most_text'),
        );
    }

    private function takesAnyKind(): bool
    {
        return $this->smallest === null && $this->largest === null && $this->text === '';
    }

    private function at(string $text): ?int
    {
        $at = $this->exactCase ? mb_strpos($text, $this->text) : mb_stripos($text, $this->text);

        return $at === false ? null : $at;
    }

    private static function excerpt(string $line, int $at): string
    {
        $from = max(0, $at - intdiv(self::EXCERPT, 4));

        return trim(($from > 0 ? '…' : '').mb_substr($line, $from, self::EXCERPT)
            .(mb_strlen($line) > $from + self::EXCERPT ? '…' : ''));
    }
}
