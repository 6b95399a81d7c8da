<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

use Cellarium\Core\Connection\Protocol;

/**
 * Reads the accounts out of a provider's welcome letter, in any of seven languages.
 *
 * Values are found by what they are, and each is weighed by what stands around it: the label, what is between them, the
 * part of the letter, and whether it is quoted. Only what belongs to file transfer is taken; control panel, mail and
 * databases have hosts, logins and passwords of their own. What comes close to another reading is said to be unsure.
 */
final class LetterReader
{
    private const FOOTER =
        '/\b(?:registered office|company (?:no|number)|vat(?: id| no)?|ust-?id|hrb|amtsgericht|'
        .'gesch[aä]ftsf[uü]hrer|siret|rcs|p\.? '
        .'?iva|kvk|btw|nif|cif|confidential|vertraulich|confidentiel|confidencial|riservat|'
        .'vertrouwelijk|unsubscribe|disclaimer)\b/iu';

    private const SUBJECT =
        '/\A\s*(?:subject|betreff|objet|asunto|oggetto|onderwerp|assunto|from|von|de|da|van|to|an|'
        .'date|datum|sent|gesendet)\s*:/iu';

    /** Headings with which another account begins. */
    private const ANOTHER =
        '/\b(?:account|site|access|zugang|konto|seite|acc[eè]s|compte|cuenta|sitio|accesso|sito|'
        .'toegang|conta|acesso|login|user|server)\s*(?:no\.?\s*|nr\.?\s*|number\s*|#\s*)?\d+\b|'
        .'\b(?:second|third|another) (?:account|site|ftp)|'
        .'\A(?:\d+[.)]\s*)?(?:staging|live|production|produktion|'
        .'test|development|entwicklung|preproduction|pr[eé]production|preproducci[oó]n|produzione|'
        .'produc[aã]o|productie|acceptatie)\b/iu';

    private readonly LetterAccounts $accounts;

    private ?Section $section = null;

    /** Whether something of the section was read, and whether its block has ended since. */
    private bool $sectionBegun = false;

    private bool $sectionLeft = false;

    /** What the headings say about the protocol. */
    private ?Protocol $hint = null;

    private function __construct(private readonly string $text)
    {
        $this->accounts = new LetterAccounts;
    }

    /** @return list<LetterAccount> in the order of the letter; the text behind their positions is LetterText's */
    public static function read(string $pasted): array
    {
        $reader = new self(LetterText::fromPasted($pasted));
        $reader->lines();

        return $reader->accounts->result();
    }

    private function lines(): void
    {
        $lines = [];
        $offset = 0;
        $signed = false;
        foreach (explode("\n", $this->text) as $line) {
            $signed = $signed || preg_match('/\A-- ?\z/', $line) === 1;
            $lines[] = new LetterLine(
                $line,
                $offset,
                $signed || preg_match(self::FOOTER, $line) === 1 || preg_match(self::SUBJECT, $line) === 1,
            );
            $offset += strlen($line) + 1;
        }
        $waiting = null;
        $ours = [];
        for ($index = 0; $index < count($lines); $index++) {
            $rows = LetterTable::rows($lines, $index);
            if ($rows !== null) {
                [$columns, $last] = $rows;
                $this->columns($columns, $lines[$index]);
                $index = $last;
                $waiting = null;

                continue;
            }
            $waiting = $this->line($lines[$index], $waiting);
            if ($this->section?->isElsewhere() !== true) {
                $ours[] = [$lines[$index], $this->accounts->count() - 1];
            }
        }
        LetterCandidates::complete($this->accounts, $ours);
    }

    /** @return LetterLabel|null one whose value is still to come */
    private function line(LetterLine $line, ?LetterLabel $waiting): ?LetterLabel
    {
        $labels = LetterLabel::in($line->text);
        if (trim($line->text) === '') {
            $this->sectionLeft = $this->sectionBegun;

            return $waiting;
        }
        if ($waiting !== null && $labels === []) {
            $this->take($waiting, $line->text, 0, $line);

            return null;
        }
        $this->heading($line, $labels === [] ? $line->text : substr($line->text, 0, $labels[0]->at), $labels !== []);
        $this->addresses($line, $labels);
        $this->protocol($line, $labels);
        $waiting = null;
        foreach ($labels as $number => $label) {
            $end = $labels[$number + 1]->at ?? strlen($line->text);
            $value = substr($line->text, $label->end, max(0, $end - $label->end));
            if ($label->mark === LabelMark::Behind) {
                $this->behind($label, $line);
            } elseif (trim($value, " \t|:.=-–—>→\u{00A0}") !== '') {
                $this->take($label, $value, $label->end, $line);
            } elseif ($number === count($labels) - 1) {
                $waiting = $label;
                $number > 0 || $this->heading($line, $line->text, false);
            }
        }

        return $waiting;
    }

    /** @param  bool  $leads  whether it stands before labels in the same line */
    private function heading(LetterLine $line, string $text, bool $leads): void
    {
        $words = trim($text, " \t#*=_-–—:.[]()|>•\u{00A0}");
        // What ends like a sentence is none: "Dear customer,".
        if (
            $words === ''
            || (! $leads && preg_match('/[,.!?]\s*\z/u', $text) === 1)
            || $line->isWeak()
            || mb_strlen($words) > 80
            || str_word_count($words) > 12
        ) {
            return;
        }
        if (preg_match(self::ANOTHER, $words) === 1 && $this->accounts->hasBegun()) {
            $this->accounts->begin();
            $this->enter(null);
        }
        $section = LetterLabel::sectionOf($words);
        if ($this->section === Section::Old && $section === null && Vocabulary::isNew($words)) {
            $this->enter(null);
        }
        if ($section === null || ($section === Section::Old && $leads)) {
            return;
        }
        $this->enter($section);
        if ($section === Section::Files) {
            $this->hint = Vocabulary::protocolIn($words) ?? $this->hint;
            $this->accounts->hint($this->hint);
        }
    }

    /**
     * An address with its scheme says host, port, login and directory all at once, wherever it stands.
     *
     * @param  list<LetterLabel>  $labels
     */
    private function addresses(LetterLine $line, array $labels): void
    {
        if (
            ($this->section?->isElsewhere() ?? false)
            || preg_match('~(?<!\w)(?:s?ftps?|ftpes)://[^\s<>"\x{00A0}]+~iu', $line->text, $match, PREG_OFFSET_CAPTURE)
                !== 1
        ) {
            return;
        }
        [$url, $at] = $match[0];
        foreach ($labels as $label) {
            if ($label->end <= $at && $at - $label->end < 4) {
                return; // It is the value of a label, and read as that.
            }
        }
        foreach (LetterValue::host($url, $line->offset + $at, strlen($url)) as $found) {
            $this->accounts->add($found, 7.0 - $line->penalty(), $line->isWeak());
        }
    }

    /**
     * Words for a protocol that stand beside labels and are the value of none: "(port 21, explicit TLS)".
     *
     * @param  list<LetterLabel>  $labels
     */
    private function protocol(LetterLine $line, array $labels): void
    {
        if ($labels === [] || ($this->section?->isElsewhere() ?? false)) {
            return;
        }
        $rest = $line->text;
        foreach (array_reverse($labels) as $label) {
            if ($label->fact === Fact::Protocol || ($label->section?->isElsewhere() ?? false)) {
                return;
            }
            $rest = substr_replace(
                $rest,
                str_repeat(' ', $label->end - $label->at),
                $label->at,
                $label->end - $label->at,
            );
        }
        // "21 (or 990 for FTPS)" is about another port than the one named.
        $rest = (string) preg_replace_callback(
            '/\(\s*(?:or|oder|ou|o|of)\s+\d+[^)]*\)/iu',
            static fn (array $match): string => str_repeat(' ', strlen($match[0])),
            $rest,
        );
        // Names and passwords hold any letters.
        $rest = (string) preg_replace_callback(
            '/\S*[\d@=#!%_]\S*|\S+[.-]\S+/u',
            static fn (array $match): string => str_repeat(' ', strlen($match[0])),
            $rest,
        );
        $protocol = Vocabulary::protocolIn($rest);
        if (
            $protocol !== null
            && preg_match('/s?ftp|ssh|tls|ssl|impli|expli/i', $rest, $match, PREG_OFFSET_CAPTURE) === 1
        ) {
            $this->accounts->add(
                new Found(
                    Fact::Protocol,
                    $protocol->value,
                    $line->offset + $match[0][1],
                    strlen($match[0][0]),
                    [],
                    'no label says so; it is said beside another value',
                ),
                5.0 - $line->penalty(),
                $line->isWeak(),
            );
        }
    }

    private function behind(LetterLabel $label, LetterLine $line): void
    {
        $before = substr($line->text, 0, $label->at);
        if (preg_match('/(\S+)[ \x{00A0}]*\(\s*\z/u', $before, $match, PREG_OFFSET_CAPTURE) === 1) {
            $this->take($label, $match[1][0], $match[1][1], $line);
        }
    }

    /**
     * @param  list<list<array{LetterLabel, string, int, LetterLine}>>  $columns  label, value, where it stands in
     *     its line; by account
     */
    private function columns(array $columns, LetterLine $first): void
    {
        foreach ($columns[0] as [$label, $value]) {
            $this->leave($label, $value);
        }
        if ($this->section?->isElsewhere() === true && $columns[0][0][0]->section !== Section::Files) {
            return;
        }
        foreach ($columns as $number => $facts) {
            $number === 0 || $this->accounts->begin();
            foreach ($facts as [$label, $value, $at, $line]) {
                $this->take($label, $value, $at, $line);
            }
        }
    }

    private function enter(?Section $section): void
    {
        [$this->section, $this->sectionBegun, $this->sectionLeft] = [$section, false, false];
    }

    /**
     * A part about something else has ended, unsaid, when its block has and what follows is what only files have: a
     * port,
     * a protocol, a directory, a domain of one's own, a host that is not one for mail.
     */
    private function leave(LetterLabel $label, string $text): void
    {
        if (! $this->sectionLeft || $label->section !== null || $this->section?->isElsewhere() !== true) {
            return;
        }
        $ours = match ($label->fact) {
            Fact::Port, Fact::Protocol, Fact::Directory => true,
            Fact::Domain => ! $label->weak,
            Fact::Host => preg_match('/\A\W*(?:ftp|web|srv|www|host|server|node|s\d)[\w-]*\./i', $text) === 1,
            default => false,
        };
        $ours && $this->enter(null);
    }

    private function take(LetterLabel $label, string $text, int $at, LetterLine $line): void
    {
        $this->leave($label, $text);
        $section = $this->section === Section::Old && $label->section === Section::Files
            ? Section::Old
            : $label->section ?? $this->section;
        $this->sectionBegun = true;
        if ($label->section !== null && $label->section !== Section::Files) {
            // What follows without a kind of its own belongs to the same thing.
            if (in_array($label->fact, [Fact::Host, Fact::Login], true) && $label->section !== Section::Names) {
                $this->enter($label->section);
            }
        } elseif ($section === Section::Files && $label->section === Section::Files) {
            $this->enter(Section::Files);
            $this->accounts->hint($this->hint = Vocabulary::protocolIn($label->words) ?? $this->hint);
        }
        $value = LetterValue::cut($text, $label);
        $from = $line->offset + $at + $value->at;
        if ($section?->isElsewhere() === true) {
            $this->accounts->elsewhere($section, $label->fact, trim($value->text));

            return;
        }
        $said = Vocabulary::said($value->text.$value->rest);
        if (
            $said !== null
            && in_array($label->fact, [Fact::Login, Fact::Password, Fact::Host, Fact::Port, Fact::Directory], true)
            && ! self::isPlainly($label->fact, $value->text)
        ) {
            $this->accounts->say(
                $label->fact,
                $said,
                LetterLabel::sectionOf($value->text.$value->rest),
                $from,
                strlen($value->text),
            );

            return;
        }
        foreach (LetterValue::read($label, $value, $from) as $found) {
            $this->accounts->add($found, $label->score() - $line->penalty(), $line->isWeak());
        }
    }

    /** Whether it is a value whatever it may mean as a word: "same-4711", "apart9x". */
    private static function isPlainly(Fact $fact, string $text): bool
    {
        return preg_match('/\d|[\/@]|\w\.\w/', $text) === 1 && ! str_contains(trim($text), ' ');
    }
}
