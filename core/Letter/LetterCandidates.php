<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

use Cellarium\Core\Intake\CleanedInput;

/**
 * Facts that labels and marks left open, completed by the shape of values.
 *
 * A value that stands in one line with a word for a fact that is still missing belongs to it; what stands there without
 * such a word is taken for what it looks like, when it is the only one that does. All of it is said to be unsure.
 */
final readonly class LetterCandidates
{
    /** Ports that a letter means for file transfer, without saying so. */
    private const PORT = '/\A(?:21|22|990|2[0-9]{3}|10[0-9]{3})\z/';

    /** @var array<array-key, true> parts of names of hosts and domains in the letter */
    private array $names;

    /** @param  list<array{LetterLine, int}>  $lines  of the parts about files, each with the number of its account */
    private function __construct(private LetterAccounts $accounts, private array $lines)
    {
        $names = [];
        foreach ($lines as [$line]) {
            preg_match_all('/(?<![\p{L}\d])([\p{L}\d_-]{4,})\.(?=\p{L})/u', mb_strtolower($line->text), $matches);
            $names += array_fill_keys($matches[1], true);
        }
        $this->names = $names;
    }

    /** @param  list<array{LetterLine, int}>  $lines  of the parts about files, each with the number of its account */
    public static function complete(LetterAccounts $accounts, array $lines): void
    {
        $candidates = new self($accounts, $lines);
        $candidates->besideWords();
        $candidates->byLooks();
    }

    private function besideWords(): void
    {
        foreach ($this->lines as [$line, $account]) {
            $missing = $this->accounts->missing($account);
            $mentions = LetterLabel::mentions($line->text);
            $open = array_values(
                array_filter($mentions, static fn (array $mention): bool => in_array($mention[0], $missing, true)),
            );
            if ($open === []) {
                continue;
            }
            $tokens = $this->tokens($line);
            foreach ($open as [$fact, $at, $end, $words]) {
                $next = min([
                    strlen($line->text),
                    ...array_filter(array_column($mentions, 1), static fn (int $one): bool => $one > $at),
                ]);
                $before = max([
                    0,
                    ...array_filter(array_column($mentions, 2), static fn (int $one): bool => $one <= $at),
                ]);
                $within = static fn (int $from, int $to): array => array_filter(
                    $tokens,
                    static fn (array $token): bool => $token[1] >= $from && $token[1] < $to,
                );
                $fitting = array_filter(
                    $within($end, $next),
                    fn (array $token): bool => $this->fits($fact, $token, count($open) === 1),
                )
                    ?: array_reverse(
                        array_filter(
                            $within($before, $at),
                            fn (array $token): bool => $this->fits($fact, $token, count($open) === 1),
                        ),
                        true,
                    );
                $key = array_key_first($fitting);
                if (
                    $key !== null
                    && $this->add(
                        $fact,
                        $tokens[$key],
                        $line,
                        $account,
                        "it stands beside “{$words}”, without a mark between them",
                    )
                ) {
                    unset($tokens[$key]);
                }
            }
        }
    }

    private function byLooks(): void
    {
        $left = [];
        foreach ($this->lines as [$line, $account]) {
            if ($line->isWeak() || ! $this->accounts->isPartly($account)) {
                continue;
            }
            foreach ($this->tokens($line) as $token) {
                $left[$account][] = [$line, $token];
            }
        }
        foreach ($left as $account => $tokens) {
            foreach (
                [
                    Fact::Host,
                    Fact::Domain,
                    Fact::Directory,
                    Fact::Port,
                    ...$this->accounts->isHinted($account) ? [] : [Fact::Protocol],
                ] as $fact
            ) {
                $tokens = $this->oneOf($tokens, $fact, $account);
            }
            $this->credentials($tokens, $account);
        }
    }

    /**
     * @param  array<int, array{LetterLine, array{string, int, bool, bool}}>  $tokens
     * @return array<int, array{LetterLine, array{string, int, bool, bool}}> those that are left
     */
    private function oneOf(array $tokens, Fact $fact, int $account): array
    {
        if (! in_array($fact, $this->accounts->missing($account), true)) {
            return $tokens;
        }
        $known = $this->accounts->valuesOf($account);
        $fitting = array_filter(
            $tokens,
            fn (array $one): bool => $this->fits($fact, $one[1], false)
                && ! in_array(trim($one[1][0], '.'), $known, true)
                && match ($fact) {
                    Fact::Host => preg_match('/\A(?:s?ftp|web|srv|server|host|node|s|w)[\w-]*\./i', $one[1][0]) === 1,
                    Fact::Domain => preg_match(
                        '/\A(?:s?ftp|srv|server|host|node|my|mail|imap|smtp|pop|ns)\d*[\w-]*\./i',
                        $one[1][0],
                    ) !== 1,
                    Fact::Port => preg_match(self::PORT, $one[1][0]) === 1 && $one[1][3],
                    default => true,
                },
        );
        $values = array_unique(array_map(static fn (array $one): string => mb_strtolower($one[1][0]), $fitting));
        $key = array_key_first($fitting);
        if (
            $key !== null
            && count($values) === 1
            && $this->add(
                $fact,
                $tokens[$key][1],
                $tokens[$key][0],
                $account,
                "no label says so; it looks like a {$fact->value}",
            )
        ) {
            unset($tokens[$key]);
        }

        return $tokens;
    }

    /** @param  array<int, array{LetterLine, array{string, int, bool, bool}}>  $tokens */
    private function credentials(array $tokens, int $account): void
    {
        $missing = array_values(
            array_filter(
                [Fact::Login, Fact::Password],
                fn (Fact $fact): bool => in_array($fact, $this->accounts->missing($account), true),
            ),
        );
        $codes = array_values(
            array_filter($tokens, fn (array $one): bool => $one[1][3] && $this->fits(Fact::Password, $one[1], true)),
        );
        if ($missing === [] || count($codes) !== count($missing)) {
            return;
        }
        foreach ($missing as $index => $fact) {
            $this->add(
                $fact,
                $codes[$index][1],
                $codes[$index][0],
                $account,
                "no label says so; it looks like a {$fact->value}",
            );
        }
    }

    /** @param  array{string, int, bool, bool}  $token */
    private function add(Fact $fact, array $token, LetterLine $line, int $account, string $doubt): bool
    {
        [$text, $at] = $token;
        $from = $line->offset + $at;
        $found = match ($fact) {
            Fact::Protocol => ($protocol = Vocabulary::protocolIn($text)) === null
                ? []
                : [new Found($fact, $protocol->value, $from, strlen($text))],
            Fact::Login, Fact::Password => ($cleaned = CleanedInput::word($text))->value === ''
                ? []
                : [new Found($fact, $cleaned->value, $from, strlen($text), $cleaned->changes)],
            Fact::Port => [new Found($fact, $text, $from, strlen($text))],
            default => LetterValue::plain($fact, $text, $from),
        };
        foreach ($found as $one) {
            $this->accounts->complete($account, $one->doubted($doubt), $line->isWeak());
        }

        return $found !== [];
    }

    /** @param  array{string, int, bool, bool}  $token */
    private function fits(Fact $fact, array $token, bool $alone): bool
    {
        [$text, , $quoted, $last] = $token;
        $text = (string) preg_replace(CleanedInput::UNSEEN, '', $text);

        return match ($fact) {
            Fact::Host => preg_match('/\A[a-z0-9][\w-]*(?:\.[\w-]+)+\z/i', $text) === 1
                && preg_match('/[a-z]/i', $text) === 1,
            Fact::Domain => preg_match('/\A(?:https?:\/\/)?[\p{L}0-9][\p{L}\w-]*(?:\.[\p{L}\w-]+)+\/?\z/iu', $text)
                === 1 && preg_match('/[a-z]/i', $text) === 1,
            Fact::Address => filter_var($text, FILTER_VALIDATE_IP) !== false,
            Fact::Port => preg_match('/\A\d{2,5}\z/', $text) === 1 && (int) $text < 65536,
            Fact::Directory => preg_match('~\A/[\w./-]*\z~', $text) === 1,
            Fact::Protocol => preg_match('/\A(?:s?ftps?|ftpes|ssh|tls|ssl|explicit|implicit)\z/i', $text) === 1
                || preg_match('/\As?ftps?\b.*\b(?:tls|ssl|ssh|implicit|explicit)\b/i', $text) === 1,
            Fact::Login => $quoted || self::isCode($text) || ($alone && $last) || $this->isPartOfName($text),
            Fact::Password => $quoted || self::isCode($text) || ($alone && $last && mb_strlen($text) > 5),
        };
    }

    /** A word that no language has: digits or marks among letters, or a capital behind small ones. */
    private static function isCode(string $text): bool
    {
        return mb_strlen($text) > 3 && preg_match('~\A/|://|\A[\w-]+(?:\.[\w-]+)+\z~', $text) !== 1
            && preg_match('/\p{L}.*\d|\d.*\p{L}|\p{Ll}\p{Lu}|\p{L}@\p{L}|[!#%+=_]/u', $text) === 1;
    }

    /** Whether a host or domain of the letter has it as a part: "tansymill" where there is "tansymill.example". */
    private function isPartOfName(string $text): bool
    {
        return array_filter(
            preg_split('/[-_.]/', mb_strtolower($text)) ?: [],
            fn (string $part): bool => isset($this->names[$part]),
        ) !== [];
    }

    /**
     * @return list<array{string, int, bool, bool}> words of a line that nothing was read from: text, place, whether
     *     in quotes, whether it stands behind a mark or a wide blank
     */
    private function tokens(LetterLine $line): array
    {
        $tokens = [];
        preg_match_all(
            '/["“„«‘`][ \x{00A0}]?([^"“”„«»‘’`\s\x{00A0}]{2,60})[ \x{00A0}]?["”“»’`]|<?\bs?ftps?\b[^;|'
                .'\t\n<>]{0,16}\b(?:tls|ssl|ssh|implicit|explicit)\b|[^\s\x{00A0}<>|]+/iu',
            $line->text,
            $matches,
            PREG_OFFSET_CAPTURE | PREG_UNMATCHED_AS_NULL,
        );
        foreach ($matches[0] as $index => [$whole, $at]) {
            [$text, $from] = $matches[1][$index][0] === null
                ? [(string) $whole, $at]
                : [(string) $matches[1][$index][0], $matches[1][$index][1]];
            $quoted = $matches[1][$index][0] !== null;
            $lead = strspn($text, '([{<');
            $plain = rtrim(substr($text, $lead), '.,;:)]}>?');
            $behind = substr($line->text, 0, $from);
            $marked = preg_match('/(?:[:=|\t→]|\S[ ]{2}|->)\s*\z/u', $behind) === 1;
            $last = ($marked && trim(substr($line->text, $from + strlen($text)), ' .') === '')
                || (trim($line->text) === $plain && self::isCode($plain));
            if ($plain !== '' && ! $this->accounts->isTaken($line->offset + $from + $lead, strlen($plain))) {
                $tokens[] = [$plain, $from + $lead, $quoted, $last || $marked];
            }
        }

        return $tokens;
    }
}
