<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** A label in a line of a letter, "FTP user name:". */
final readonly class LetterLabel
{
    /** Between words of one label: a blank, a hyphen, an apostrophe. */
    private const JOINT = '/\A(?:[ \x{00A0}_-]|[\'’´])\z/u';

    private const MOST_WORDS = 5;

    /**
     * @param  int  $at  bytes from the beginning of the line to the first word that belongs to it
     * @param  int  $end  where the label and its mark end, and its value may begin
     * @param  Section|null  $section  what its words say it belongs to
     * @param  string  $words  the label with what belongs to it
     * @param  bool  $misspelled  whether letters are wrong in it
     */
    private function __construct(
        public Fact $fact,
        public int $at,
        public int $end,
        public LabelMark $mark,
        public ?Section $section,
        public string $words,
        public bool $weak,
        public bool $misspelled,
    ) {
    }

    public function score(): float
    {
        return $this->mark->score()
            - ($this->weak ? 2.0 : 0.0)
            - ($this->misspelled ? 1.0 : 0.0)
            + ($this->section === Section::Files ? 1.0 : 0.0);
    }

    /** @return list<self> in their order */
    public static function in(string $line): array
    {
        $masked = self::masked($line);
        $words = self::words($masked);
        $labels = [];
        $end = 0;
        for ($index = 0; $index < count($words); $index++) {
            if ($words[$index][1] < $end) {
                continue; // It belongs to the label before: what stands behind it, or in brackets.
            }
            for ($count = min(self::MOST_WORDS, count($words) - $index); $count > 0; $count--) {
                $phrase = self::phrase($masked, $words, $index, $count);
                $known = $phrase === null ? null : Vocabulary::label($phrase);
                $label = $known === null ? null : self::at($masked, $words, $index, $count, $known);
                if ($label !== null) {
                    $labels[] = $label;
                    $end = $label->end;
                    break;
                }
            }
        }

        return $labels;
    }

    /**
     * @return list<array{Fact, int, int, string}> words for facts wherever they stand: what they mean, where they
     *     begin and end, and they themselves
     */
    public static function mentions(string $line): array
    {
        $masked = self::masked($line);
        $words = self::words($masked);
        $mentions = [];
        for ($index = 0; $index < count($words); $index++) {
            for ($count = min(self::MOST_WORDS, count($words) - $index); $count > 0; $count--) {
                $phrase = self::phrase($masked, $words, $index, $count);
                $known = $phrase === null || preg_match('/\A(?:s?ftps?|ftpes|pad|map|alt)\z/', $phrase) === 1
                    ? null
                    : Vocabulary::label($phrase);
                if ($known !== null) {
                    $last = $words[$index + $count - 1];
                    $end = $last[1] + strlen($last[0]);
                    $mentions[] = [
                        $known[0],
                        $words[$index][1],
                        $end,
                        substr($line, $words[$index][1], $end - $words[$index][1]),
                    ];
                    $index += $count - 1;
                    break;
                }
            }
        }

        return $mentions;
    }

    /** @return list<array{string, int}> with where they begin */
    private static function words(string $masked): array
    {
        preg_match_all('/\p{L}[\p{L}\p{M}\d]*/u', $masked, $matches, PREG_OFFSET_CAPTURE);

        return $matches[0];
    }

    /** What is a name, an address or a path is a value, whatever words stand in it. */
    private static function masked(string $line): string
    {
        return (string) preg_replace_callback(
            '~\S*(?:://|@)\S*|(?<![\w)])/[\w.-]+\S*|[\w-]+(?:\.[\w-]+)+~u',
            static fn (array $match): string => str_repeat("\x01", strlen($match[0])),
            $line,
        );
    }

    /** Whether a cell of a table is a label and nothing else. */
    public static function whole(string $cell): ?self
    {
        $labels = self::in(rtrim(trim($cell), ':= ').':');

        return count($labels) === 1 && $labels[0]->at === 0 && $labels[0]->end >= strlen(rtrim(trim($cell), ':= '))
            ? $labels[0]
            : null;
    }

    /**
     * @param  list<array{string, int}>  $words
     * @return string|null folded, null where the words do not stand together
     */
    private static function phrase(string $line, array $words, int $index, int $count): ?string
    {
        $phrase = Vocabulary::fold($words[$index][0]);
        for ($next = $index + 1; $next < $index + $count; $next++) {
            if (! self::stand($line, $words, $next - 1)) {
                return null;
            }
            $phrase .= ' '.Vocabulary::fold($words[$next][0]);
        }

        return $phrase;
    }

    /**
     * Whether a word and the next stand together.
     *
     * @param  list<array{string, int}>  $words
     */
    private static function stand(string $line, array $words, int $index): bool
    {
        $from = $words[$index][1] + strlen($words[$index][0]);

        return preg_match(self::JOINT, substr($line, $from, $words[$index + 1][1] - $from)) === 1;
    }

    /**
     * @param  list<array{string, int}>  $words
     * @param  array{Fact, bool, bool}  $known
     */
    private static function at(string $line, array $words, int $index, int $count, array $known): ?self
    {
        [$fact, $weak, $misspelled] = $known;
        $first = $index;
        while (
            $first > 0
            && self::stand($line, $words, $first - 1)
            && ! self::isEndOfValue($line, $words, $first - 1)
            && self::belongs(
                Vocabulary::fold($words[$first - 1][0]),
                $first >= 2 && self::stand($line, $words, $first - 2) ? Vocabulary::fold($words[$first - 2][0]) : '',
            )
        ) {
            $first--;
        }
        // "Utilisateur FTP", "Contraseña de MySQL": what it is about may stand behind it.
        $last = $index + $count - 1;
        while (
            $last + 1 < count($words)
            && self::stand($line, $words, $last)
            && self::isAbout(Vocabulary::fold($words[$last + 1][0]))
        ) {
            $last++;
        }
        $from = $words[$last][1] + strlen($words[$last][0]);
        $mark = self::mark(substr($line, $from), $fact, $weak);
        $isProtocol = $count === 1 && preg_match('/\A(?:s?ftps?|ftpes)\z/i', $words[$index][0]) === 1;
        if (
            $mark === null
            || ($misspelled && $mark[0] === LabelMark::Behind)
            || ($isProtocol && preg_match('/\A[ \x{00A0}]*[:=]/u', substr($line, $from)) !== 1)
        ) {
            return null; // "SFTP:" may lead to a host; "SFTP" alone says which protocol it is.
        }
        [$kind, $length, $between] = $mark;
        $start = $words[$first][1];
        $before = substr($line, 0, $start);
        $alone = trim($before, " \t\u{00A0}*•·>#-–—|;,(/&+.\x01") === ''
            || preg_match('/(?:\t|[|;,(\/.:!?\x01]\s*|[ ]{2,}|^\s*\d{1,2}[.)]\s*)\z/u', $before) === 1;
        $joined = $first < $index || ($first > 0 && Vocabulary::isBefore(Vocabulary::fold($words[$first - 1][0])));
        if ($isProtocol && ! $alone) {
            return null;
        }
        if (
            ! $alone
            && ! $joined
            && $kind !== LabelMark::Sign
            && $kind !== LabelMark::Behind
            && ! ($kind === LabelMark::Blank && $fact === Fact::Port)
        ) {
            return null;
        }
        $cluster = substr($line, $start, $from - $start).' '.$between;

        return new self($fact, $start, $from + $length, $kind, self::sectionOf($cluster), $cluster, $weak, $misspelled);
    }

    /**
     * Whether a word hangs on one that no label has: the "ftp" of a login "kelpie-ftp".
     *
     * @param  list<array{string, int}>  $words
     */
    private static function isEndOfValue(string $line, array $words, int $index): bool
    {
        return in_array(substr($line, max(0, $words[$index][1] - 1), 1), ['-', '_'], true)
            && ($index < 1 || ! self::belongs(Vocabulary::fold($words[$index - 1][0]), ''));
    }

    private static function isAbout(string $word): bool
    {
        return $word === 'web'
            || Vocabulary::isWhichOne($word)
            || in_array(Vocabulary::section($word), [Section::Files, Section::Database, Section::Mail], true);
    }

    /** Whether a word before a label says what the label is about. */
    private static function belongs(string $word, string $before): bool
    {
        return Vocabulary::isBefore($word)
            || Vocabulary::section($word) !== null
            || Vocabulary::section(trim("$before $word")) !== null
            || in_array(
                $word,
                ['control', 'customer', 'client', 'name', 'data', 'correo', 'web', 'area', 'kunden'],
                true,
            );
    }

    /** @return array{LabelMark, int, string}|null the mark, how many bytes it takes, and the words before it */
    private static function mark(string $rest, Fact $fact, bool $weak): ?array
    {
        // "Mot de passe d’accès", "Clave de acceso al servicio": words that say no more.
        if (
            preg_match(
                '/\A(?:[ \x{00A0}](?:de|d|di|du|des|del|della|dei|of|for|pour|para|per|voor|van|von|fur|für|zum|zur|'
                    .'da|do|al|zu)[ \x{00A0}’\'´]\p{L}+){1,2}(?=[ \x{00A0}]*(?:[:=|\t(.]|[ \x{00A0}]-|->|[–—→]|\z|[ '
                    .']{2})|[ ]\p{L}+[ ])/u',
                $rest,
                $match,
            ) === 1
            && self::sectionOf($match[0]) === null
        ) {
            $behind = self::mark(substr($rest, strlen($match[0])), $fact, $weak);
            if ($behind !== null && $behind[0] !== LabelMark::Blank) {
                return [$behind[0], $behind[1] + strlen($match[0]), $behind[2]];
            }
        }
        $sign = '(?::|=(?!=)|\t|\||\.{2,}:?|[ \x{00A0}][–—-]{1,2}>?(?=[ \x{00A0}])|->|[→⇒»])';
        if (
            preg_match(
                "/\\A[ \\x{00A0}]*(\\([^()\\x01]{0,40}\\))?[ \\x{00A0}]*(?:[.]{2,}[ ]*)?$sign/u",
                $rest,
                $match,
            ) === 1
        ) {
            return [LabelMark::Sign, strlen($match[0]), $match[1] ?? ''];
        }
        if (
            preg_match('/\A[ \x{00A0}]+(\p{L}+)(?::|(?=[ \x{00A0}]))/u', $rest, $match) === 1
            && Vocabulary::isIs($match[1])
        ) {
            return [LabelMark::Is, strlen($match[0]), ''];
        }
        // "Password for e-mail:", "Benutzer der Datenbank:"
        if (
            preg_match("/\\A((?:[ \\x{00A0}-]\\p{L}[\\p{L}\\d’'-]*){1,5})[ ]?:/u", $rest, $match) === 1
            && self::sectionOf($match[1]) !== null
        ) {
            return [LabelMark::Sign, strlen($match[0]), $match[1]];
        }
        if (preg_match('/\A[ \x{00A0}]*\z/u', $rest) === 1) {
            return [LabelMark::End, strlen($rest), ''];
        }
        if (preg_match('/\A[ ]{2,}(?=\S)/', $rest, $match) === 1) {
            return [LabelMark::Gap, strlen($match[0]), ''];
        }
        if (preg_match('/\A\)/', $rest) === 1) {
            return [LabelMark::Behind, 1, ''];
        }
        $plain = match ($fact) {
            Fact::Port => '/\A[ \x{00A0}]+(?=\d{2,5}\b)/u',
            Fact::Directory => '/\A[ \x{00A0}]+(?=[\/\x01])/u',
            Fact::Host, Fact::Domain, Fact::Address => '/\A[ \x{00A0}]+(?=\x01)/u',
            // A word that is no word of a language: with a digit, a mark or a capital inside.
            Fact::Login,
            Fact::Password => '/\A[ \x{00A0}]+(?=["„“«‘\'`\x01]|\S*[\p{L}]\S*\d|\S*\d\S*\p{L}|\p{Ll}+\p{Lu})/u',
            Fact::Protocol => null,
        };

        return $plain !== null
            && (! $weak || $fact === Fact::Login || $fact === Fact::Port)
            && preg_match($plain, $rest, $match) === 1
            ? [LabelMark::Blank, strlen($match[0]), '']
            : null;
    }

    /** What words are about; what is old stays old, and what is about files and something else too is about files. */
    public static function sectionOf(string $text): ?Section
    {
        preg_match_all('/[\p{L}\d]+/u', Vocabulary::fold($text), $matches);
        $words = $matches[0];
        $found = [];
        foreach ($words as $index => $word) {
            foreach ([1, 2, 3] as $count) {
                $section = Vocabulary::section(implode(' ', array_slice($words, $index, $count)));
                $section === null ?: $found[$section->value] = $section;
            }
        }
        foreach (
            [Section::Old, Section::Names, Section::Files, Section::Database, Section::Mail, Section::Panel] as $section
        ) {
            if (isset($found[$section->value])) {
                return $section;
            }
        }

        return null;
    }
}
