<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Intake\CleanedInput;
use Cellarium\Core\Path\RemotePath;

/** The text behind a label, and the part of it that is the value. */
final readonly class LetterValue
{
    /**
     * @param  string  $text  the value as it stands there
     * @param  int  $at  bytes from the end of the label to it
     * @param  string  $rest  what stands behind it, up to the next label
     * @param  bool  $parted  whether a mark at its end was taken for one between parts of a sentence or list
     */
    private function __construct(
        #[\SensitiveParameter]
        public string $text,
        public int $at,
        public string $rest,
        public bool $parted = false,
    ) {
    }

    /** @param  string  $text  what follows the label, to the next one or the end of the line */
    public static function cut(#[\SensitiveParameter] string $text, LetterLabel $label): self
    {
        preg_match('/\A(?:[ \t:=|>\x{00A0}]|\.{2,}|[-–—]{1,2}>?(?=[ \t\x{00A0}])|[→⇒»])*/u', $text, $lead);
        $at = strlen($lead[0] ?? '');
        $body = substr($text, $at);
        if (preg_match('/\A(["“„«‘\'`])(.+?)["”“»’\'`](?=[\s.,;)]|\z)/u', $body, $match) === 1) {
            return new self($match[0], $at, substr($body, strlen($match[0])));
        }
        $end = preg_match('/[\t|]|[ \x{00A0}]{2,}|\z/u', $body, $match, PREG_OFFSET_CAPTURE) === 1
            ? $match[0][1]
            : strlen($body);
        $cell = substr($body, 0, $end);
        $rest = substr($body, $end);
        if ($label->fact !== Fact::Protocol && preg_match('/\A([^\x{00A0}\s]+)[\s\x{00A0}]/u', $cell, $match) === 1) {
            $rest = substr($cell, strlen($match[1])).$rest;
            $cell = $match[1];
        }
        $sentence = $label->mark === LabelMark::Is || $label->mark === LabelMark::Blank;
        // In a list in one line, what follows is the next label: the mark stands between the two.
        $list = ! $sentence && trim($rest) === '' && preg_match('/[,;][ \x{00A0}]+\z/u', $cell.$rest) === 1;
        if (
            ($sentence || $list)
            && preg_match('/\A(.+?)([.,;)]+)\z/', $cell, $match) === 1
            && ! (str_ends_with($match[1].$match[2], ')') && str_contains($match[1], '('))
        ) {
            return new self($match[1], $at, $match[2].$rest, true);
        }

        return new self(rtrim($cell), $at, $rest);
    }

    /** @return list<Found> what it says; an address with its scheme says several things */
    public static function read(LetterLabel $label, self $value, int $from): array
    {
        $text = $value->text;
        $length = strlen($text);

        return match ($label->fact) {
            Fact::Host => self::host($text, $from, $length, $label),
            Fact::Address => filter_var(trim($text, '.,;()'), FILTER_VALIDATE_IP) !== false
                ? [new Found(Fact::Address, trim($text, '.,;()'), $from, $length)]
                : [],
            Fact::Port => self::port($text.$value->rest, $from),
            Fact::Protocol => self::protocol($text.' '.$value->rest, $from, $length),
            Fact::Login, Fact::Password => self::credential($label, $value, $from),
            Fact::Directory => self::directory($text, $from),
            Fact::Domain => preg_match('~\As?ftps?://~i', $text) === 1
                ? self::host($text, $from, $length)
                : self::domain($text, $from),
        };
    }

    /** @return list<Found> a host, domain, address or directory by what it is, without a label */
    public static function plain(Fact $fact, string $text, int $from): array
    {
        return match ($fact) {
            Fact::Host => self::host($text, $from, strlen($text)),
            Fact::Domain => self::domain($text, $from),
            Fact::Directory => self::directory($text, $from),
            Fact::Address => [new Found($fact, $text, $from, strlen($text))],
            default => [],
        };
    }

    /** @return list<Found> */
    public static function host(string $text, int $from, int $length, ?LetterLabel $label = null): array
    {
        $cleaned = CleanedInput::host(trim($text, '<>()[]'));
        if (! CleanedInput::isHost($cleaned->value)) {
            return [];
        }
        $isAddress = filter_var($cleaned->value, FILTER_VALIDATE_IP) !== false;
        $doubt = $label?->weak === true
            && $label->section !== Section::Files
            && ! $isAddress
            && preg_match('/^(?:s?ftp|www|web|server|host|srv|node)[\w-]*\.|\./', $cleaned->value) !== 1
                ? 'this may be another host'
                : null;
        $changes = array_values(
            array_filter($cleaned->changes, static fn (string $change): bool => ! str_starts_with($change, 'blanks')),
        );
        $found = [new Found(Fact::Host, $cleaned->value, $from, $length, $changes, $doubt)];
        $cleaned->port === null || $found[] = new Found(Fact::Port, (string) $cleaned->port, $from, $length);
        if ($cleaned->protocol !== null) {
            // By custom ftps:// means implicit TLS; with another port than its own it does not.
            $protocol = $cleaned->protocol === Protocol::FtpsImplicit && $cleaned->port !== 990
                ? Protocol::FtpsExplicit
                : $cleaned->protocol;
            $found[] = new Found(
                Fact::Protocol,
                $protocol->value,
                $from,
                $length,
                ['read from the scheme of the address'],
                $protocol === Protocol::Ftp ? 'only the address says so' : null,
            );
        }
        if ($cleaned->protocol !== null && preg_match('~://[^/@\s:]*:([^/@\s]+)@~', $text, $match) === 1) {
            $found[] = new Found(
                Fact::Password,
                rawurldecode($match[1]),
                $from,
                $length,
                [
                    'read from the address, with its percent signs undone',
                ],
            );
        }
        $cleaned->login === null || ($found[] = new Found(Fact::Login, $cleaned->login, $from, $length));
        if (
            $cleaned->path !== null
            && $cleaned->protocol !== null
            && RemotePath::tryFromString($cleaned->path) !== null
        ) {
            $found[] = new Found(Fact::Directory, $cleaned->path, $from, $length);
        }

        return $found;
    }

    /** @return list<Found> */
    private static function port(string $text, int $from): array
    {
        if (preg_match('/\A\s*(\d{1,5})\b/', $text, $match) !== 1 || (int) $match[1] < 1 || (int) $match[1] > 65535) {
            return [];
        }
        $several = preg_match('~\A\s*\d+\s*(?:\(?\s*(?:/|or|oder|ou|o|of|,|und)\s*(?:for )?\d)~', $text) === 1;

        return [
            new Found(
                Fact::Port,
                $match[1],
                $from,
                strlen($match[1]),
                [],
                $several ? 'the letter names several' : null,
            ),
        ];
    }

    /** @return list<Found> */
    private static function protocol(string $text, int $from, int $length): array
    {
        $protocol = Vocabulary::protocolIn($text);
        $several = preg_match('/\bsftp\b/i', $text) === 1 && preg_match('/(?<!s)\bftps?\b/i', $text) === 1;

        return $protocol === null
            ? []
            : [
                new Found(
                    Fact::Protocol,
                    $protocol->value,
                    $from,
                    $length,
                    [],
                    $several ? 'the letter names several' : null,
                ),
            ];
    }

    /** @return list<Found> */
    private static function credential(LetterLabel $label, self $value, int $from): array
    {
        $cleaned = CleanedInput::word($value->text);
        // French quotation marks have blanks inside.
        $text = (string) preg_replace('/\A[ \x{00A0}\x{202F}]+|[ \x{00A0}\x{202F}]+\z/u', '', $cleaned->value);
        if ($text === '' || preg_match('/\A[*•●x.]{3,}\z/u', $text) === 1) {
            return [];
        }
        if (
            preg_match(
                '/\A(?:sent|see|as|the|you|your|same|to|will|is|has|have|was|can|in|on|for|with|and|please|separately|'
                    .'by|not|or|hidden|chosen|known|from|\(.*|must|should|wird|wurde|ist|'
                    .'und|der|die|das|est|sera|es|se|sera|viene|wordt|y|et|e)\z/iu',
                $text,
            ) === 1
        ) {
            return []; // A sentence about it, not the thing itself.
        }
        $sentence = $label->mark === LabelMark::Is || $label->mark === LabelMark::Blank;
        $next = trim($value->rest, " \t\u{00A0}");
        $doubt = null;
        if (
            $next !== ''
            && ! str_starts_with($next, '(')
            && ! $sentence
            && ! $value->parted
            && preg_match('/\A[|\t.,;\/]|\A(?:and|or|with|for|please|und|et|y|e|en|oder|mit)\b/iu', $next) !== 1
            && preg_match('/[ ]{2,}|\t/', $value->rest) !== 1
        ) {
            $doubt = 'more stands behind it in the letter';
        } elseif (preg_match('/[.,;:]\z/', $text) === 1) {
            $doubt = 'the mark at its end may belong to the sentence';
        } elseif ($sentence && $value->parted && $label->fact === Fact::Password) {
            $doubt = 'the mark behind it was taken for the end of the sentence';
        } elseif ($label->mark === LabelMark::Blank || $label->mark === LabelMark::Behind) {
            $doubt = 'it stands in a sentence without a mark';
        }
        $changes = $value->parted
            ? [...$cleaned->changes, 'full stop or comma at its end taken off']
            : $cleaned->changes;
        $otherwise = match (true) {
            $doubt === 'more stands behind it in the letter' => trim($value->text.$value->rest),
            $value->parted => $text.substr($value->rest, 0, 1),
            default => null,
        };

        return [
            new Found(
                $label->fact,
                $text,
                $from,
                strlen($value->text),
                $changes,
                $doubt,
                $doubt === null ? null : $otherwise,
            ),
        ];
    }

    /** @return list<Found> */
    private static function directory(string $text, int $from): array
    {
        $cleaned = CleanedInput::word($text);
        $path = rtrim((string) preg_replace('/[.,;)]+\z/', '', $cleaned->value), '/');
        $changes = $cleaned->changes;
        if ($path !== $cleaned->value) {
            $changes[] = 'slash or mark at its end taken off';
        }
        if (
            preg_match('~\A[/\w.-][\w./@%+-]*\z~u', $path === '' ? '/' : $path) !== 1
            || (! str_contains($text, '/') && preg_match('/\A[\w-]*[a-z][\w.-]*\z/i', $path) !== 1)
        ) {
            return [];
        }
        $absolute = str_starts_with($path, '/') ? $path : "/$path";
        if (RemotePath::tryFromString($absolute) === null) {
            return [];
        }

        return [
            new Found(
                Fact::Directory,
                $absolute,
                $from,
                strlen($text),
                $absolute === $path ? $changes : [...$changes, 'taken from the top'],
            ),
        ];
    }

    /** @return list<Found> */
    private static function domain(string $text, int $from): array
    {
        $cleaned = CleanedInput::host(trim($text, '<>()[]'));

        return CleanedInput::isHost($cleaned->value) && filter_var($cleaned->value, FILTER_VALIDATE_IP) === false
            ? [new Found(Fact::Domain, $cleaned->value, $from, strlen($text), $cleaned->changes)]
            : [];
    }
}
