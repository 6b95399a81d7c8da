<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

use Cellarium\Core\Account\Cleaned;
use Cellarium\Core\Account\Protocol;
use Cellarium\Core\Path\RemotePath;

/**
 * Reads the accounts out of a provider's welcome letter.
 *
 * A letter is a row of labels with their values, under headings that say what they belong to. Only what belongs to
 * file transfer is taken; control panel, mail and databases have hosts, logins and passwords of their own.
 */
final class LetterReader
{
    private const OTHER = 'mail|e-?mail|web ?mail|imap|pop3?|smtp|mailbox(?:es)?|data ?bases?|mysql|mariadb|sql|phpmyadmin|control panel|panel|customer (?:area|centre|center|login|account|portal)|client area|member area|billing|support|name ?servers?|dns|invoice|admin(?:istration)?|dashboard|registrar|statistics|stats|ssl certificate';

    private const FILES = 's?ftps?(?: over (?:tls|ssl))?|file transfer|file access|file upload|uploads?|web ?space|ssh|hosting account|hosting access|web hosting';

    /** @var list<array<string, Found>> accounts read so far, the last one being filled */
    private array $accounts = [[]];

    private string $text = '';

    /** Whether the heading above belongs to something else than files. */
    private bool $elsewhere = false;

    /** What the headings and labels say about the protocol. */
    private ?Protocol $hint = null;

    /** @return list<LetterAccount> in the order of the letter; the text behind their positions is LetterText's */
    public static function read(string $pasted): array
    {
        $reader = new self;
        $reader->text = LetterText::of($pasted);
        $reader->lines();

        return $reader->result();
    }

    private function lines(): void
    {
        $offset = 0;
        $waiting = null;
        foreach (explode("\n", $this->text) as $line) {
            $pieces = $this->pieces($line);
            if ($waiting !== null && $pieces === [] && trim($line) !== '') {
                $this->take($waiting, $line, $offset);
                $waiting = null;
            } elseif ($pieces === []) {
                $this->heading($line);
                $this->addresses($line, $offset);
            }
            foreach ($pieces as $index => [$label, $value, $at]) {
                if (trim($value, " \t|:.=-–—") === '') {
                    // The value stands on the next line, if nothing else follows on this one.
                    $waiting = $index === count($pieces) - 1 ? $label : null;
                    $waiting === null || $this->heading($line);

                    continue;
                }
                $waiting = null;
                $this->take($label, $value, $offset + $at);
            }
            $offset += strlen($line) + 1;
        }
    }

    /**
     * The labelled values of one line; several where a table was squeezed into it.
     *
     * @return list<array{Label, string, int}> label, what follows it, and where that begins
     */
    private function pieces(string $line): array
    {
        $labels = Label::in($line);
        $pieces = [];
        foreach ($labels as $index => $label) {
            $end = $labels[$index + 1]->at ?? strlen($line);
            $pieces[] = [$label, substr($line, $label->end, $end - $label->end), $label->end];
        }

        return $pieces;
    }

    private function heading(string $line): void
    {
        $words = mb_strtolower(trim($line, " \t#*=_-–—:.[]()|>•"));
        if ($words === '' || mb_strlen($words) > 70) {
            return;
        }
        $files = preg_match('/\b(?:'.self::FILES.')\b/', $words) === 1;
        if (preg_match('/\b(?:'.self::OTHER.')\b/', $words) === 1 && ! $files) {
            $this->elsewhere = true;
        } elseif ($files) {
            $this->elsewhere = false;
            $this->hint = LabelledValue::protocolIn($words) ?? $this->hint;
        }
        if (preg_match('/\b(?:account|site|access|login|user|server)\s*(?:no\.?\s*|number\s*|#\s*)?\d+\b|\b(?:second|third|another) (?:account|site|ftp)/', $words) === 1 && $this->last() !== []) {
            $this->finish();
            $this->accounts[] = [];
            $this->elsewhere = false;
        }
    }

    /** An address with its scheme says host, port, login and directory all at once, wherever it stands. */
    private function addresses(string $line, int $offset): void
    {
        if ($this->elsewhere || preg_match('~\b(?:s?ftps?|ftpes)://\S+~i', $line, $match, PREG_OFFSET_CAPTURE) !== 1) {
            return;
        }
        $this->host($match[0][0], $offset + $match[0][1], null);
    }

    private function take(Label $label, string $text, int $from): void
    {
        if ($label->elsewhere) {
            // What follows without a kind of its own belongs to the same thing.
            $this->elsewhere = $this->elsewhere || ($label->fact === Fact::Host && ! $label->names) || $label->fact === Fact::Login;

            return;
        }
        if ($this->elsewhere && ! $label->files) {
            return;
        }
        $this->elsewhere = false;
        $label->files && $this->hint = LabelledValue::protocolIn($label->words) ?? $this->hint;
        [$value, $at, $rest] = LabelledValue::of($text, $label->fact, $label->sentence);
        if ($value === '') {
            return;
        }
        $from += $at;
        $doubt = null;
        match ($label->fact) {
            Fact::Host => $this->host($value, $from, $label),
            Fact::Address => filter_var($value, FILTER_VALIDATE_IP) !== false && $this->add(new Found(Fact::Address, $value, $from, strlen($value))),
            Fact::Port => $this->port($value, $from),
            Fact::Protocol => $this->protocol("$value $rest", $from, strlen($value)),
            Fact::Login, Fact::Password => $this->credential($label, $value, $from, $rest),
            Fact::Directory => $this->directory($value, $from),
            Fact::Domain => $this->domain($value, $from),
        };
    }

    private function host(string $value, int $from, ?Label $label): void
    {
        $cleaned = Cleaned::host(trim($value, '<>()[]'));
        if (! Cleaned::isHost($cleaned->value)) {
            return;
        }
        $isAddress = filter_var($cleaned->value, FILTER_VALIDATE_IP) !== false;
        if ($isAddress && isset($this->last()[Fact::Host->value])) {
            $this->add(new Found(Fact::Address, $cleaned->value, $from, strlen($value)));

            return;
        }
        $doubt = $label?->weak === true && ! preg_match('/^(?:s?ftp|www|web|server|host|srv|node)\d*\b|\./', $cleaned->value) ? 'this may be another host' : null;
        $changes = array_values(array_filter($cleaned->changes, static fn (string $change): bool => ! str_starts_with($change, 'blanks')));
        $this->add(new Found(Fact::Host, $cleaned->value, $from, strlen($value), $changes, $doubt));
        $cleaned->port === null || $this->add(new Found(Fact::Port, (string) $cleaned->port, $from, strlen($value)));
        $cleaned->protocol === null || $this->hint = $cleaned->protocol === Protocol::FtpsImplicit && $cleaned->port !== 990 ? Protocol::FtpsExplicit : $cleaned->protocol;
        $cleaned->login === null || isset($this->last()[Fact::Login->value]) || $this->add(new Found(Fact::Login, $cleaned->login, $from, strlen($value)));
        if ($cleaned->path !== null && $cleaned->protocol !== null && ! isset($this->last()[Fact::Directory->value]) && RemotePath::tryFromString($cleaned->path) !== null) {
            $this->add(new Found(Fact::Directory, $cleaned->path, $from, strlen($value)));
        }
    }

    private function port(string $value, int $from): void
    {
        if (preg_match('/\A(\d{1,5})\b/', $value, $match) === 1 && (int) $match[1] > 0 && (int) $match[1] < 65536) {
            $several = preg_match('~\A\d+\s*(?:/|or|,)\s*\d~', $value) === 1;
            $this->add(new Found(Fact::Port, $match[1], $from, strlen($match[1]), [], $several ? 'the letter names several' : null));
        }
    }

    private function protocol(string $value, int $from, int $length): void
    {
        $protocol = LabelledValue::protocolIn(mb_strtolower($value));
        if ($protocol !== null) {
            $several = preg_match('/\bsftp\b/i', $value) === 1 && preg_match('/\bftps?\b/i', $value) === 1;
            $this->add(new Found(Fact::Protocol, $protocol->value, $from, $length, [], $several ? 'the letter names several' : null));
        }
    }

    private function credential(Label $label, string $value, int $from, string $rest): void
    {
        $cleaned = Cleaned::word($value);
        $doubt = null;
        if ($cleaned->value === '' || preg_match('/\A[*•●x.]{3,}\z/u', $cleaned->value) === 1) {
            return;
        }
        if (preg_match('/\A(?:sent|see|as|the|you|your|same|to|will|is|has|have|was|can|in|on|for|with|and|please|separately|by|not|or|hidden|chosen|known|from|\(.*|must|should)\z/i', $cleaned->value) === 1) {
            return; // A sentence about it, not the thing itself.
        }
        $next = trim($rest);
        if ($next !== '' && ! str_starts_with($next, '(') && ! $label->sentence && preg_match('/\A[|\t.,;\/]|\A(?:and|or|with|for|please)\b/i', $next) !== 1 && preg_match('/[ ]{2,}|\t/', $rest) !== 1) {
            $doubt = 'more stands behind it in the letter';
        } elseif (preg_match('/[.,;:]\z/', $cleaned->value) === 1) {
            $doubt = 'the mark at its end may belong to the sentence';
        } elseif ($label->sentence && preg_match('/\A[.,;]/', $rest) === 1 && $label->fact === Fact::Password) {
            $doubt = 'the mark behind it was taken for the end of the sentence';
        }
        $changes = $label->sentence && preg_match('/\A[.,;]/', $rest) === 1 ? [...$cleaned->changes, 'full stop or comma at its end taken off'] : $cleaned->changes;
        $this->add(new Found($label->fact, $cleaned->value, $from, strlen($value), $changes, $doubt));
    }

    private function directory(string $value, int $from): void
    {
        $cleaned = Cleaned::word($value);
        $path = rtrim((string) preg_replace('/[.,;]\z/', '', $cleaned->value), '/');
        $changes = $cleaned->changes;
        if ($path !== $cleaned->value) {
            $changes[] = 'slash or mark at its end taken off';
        }
        if (preg_match('~\A[/\w.-][\w./@%+-]*\z~u', $path === '' ? '/' : $path) !== 1 || (! str_contains($value, '/') && preg_match('/\A[\w-]*[a-z][\w.-]*\z/i', $path) !== 1)) {
            return;
        }
        $absolute = str_starts_with($path, '/') ? $path : "/$path";
        if (RemotePath::tryFromString($absolute) !== null) {
            $this->add(new Found(Fact::Directory, $absolute, $from, strlen($value), $absolute === $path ? $changes : [...$changes, 'taken from the top']));
        }
    }

    private function domain(string $value, int $from): void
    {
        $cleaned = Cleaned::host(trim($value, '<>()[]'));
        if (Cleaned::isHost($cleaned->value) && filter_var($cleaned->value, FILTER_VALIDATE_IP) === false) {
            $this->add(new Found(Fact::Domain, $cleaned->value, $from, strlen($value), $cleaned->changes));
        }
    }

    /** @return array<string, Found> */
    private function last(): array
    {
        return $this->accounts[count($this->accounts) - 1];
    }

    private function add(Found $found): void
    {
        $at = count($this->accounts) - 1;
        $had = $this->accounts[$at][$found->fact->value] ?? null;
        if ($had !== null && $had->value === $found->value) {
            return;
        }
        if ($had !== null) {
            // The same fact again with another value: another account begins, if this one could stand alone.
            $complete = isset($this->accounts[$at][Fact::Login->value]) && (isset($this->accounts[$at][Fact::Password->value]) || isset($this->accounts[$at][Fact::Host->value]));
            if (! $complete || ! in_array($found->fact, [Fact::Host, Fact::Login, Fact::Domain, Fact::Protocol], true)) {
                $this->accounts[$at][$found->fact->value] = new Found($had->fact, $had->value, $had->from, $had->length, $had->changes, 'the letter names another one too');

                return;
            }
            $this->finish();
            $this->accounts[] = [];
            $at++;
        }
        $this->accounts[$at][$found->fact->value] = $found;
    }

    /** What was only said by headings and labels becomes a fact of the account being left. */
    private function finish(): void
    {
        $at = count($this->accounts) - 1;
        if (isset($this->accounts[$at][Fact::Protocol->value]) || $this->accounts[$at] === []) {
            return;
        }
        $port = ($this->accounts[$at][Fact::Port->value] ?? null)?->value;
        $protocol = match ($port) {
            '22' => Protocol::Sftp,
            '990' => Protocol::FtpsImplicit,
            default => $this->hint,
        };
        $host = isset($this->accounts[$at][Fact::Host->value]) ? $this->accounts[$at][Fact::Host->value]->value : '';
        $doubt = $protocol === null ? 'only the name of the host says so' : null;
        $protocol ??= LabelledValue::protocolIn((string) strtok($host, '.'));
        if ($protocol !== null) {
            $where = $this->accounts[$at][Fact::Host->value] ?? current($this->accounts[$at]);
            $this->accounts[$at][Fact::Protocol->value] = new Found(Fact::Protocol, $protocol->value, $where->from, $where->length, [], $doubt);
        }
    }

    /** @return list<LetterAccount> */
    private function result(): array
    {
        $this->finish();
        $result = [];
        $first = [];
        foreach ($this->accounts as $facts) {
            if (! isset($facts[Fact::Login->value]) && ! isset($facts[Fact::Host->value])) {
                // A domain told once, before or after, belongs to the one account there is.
                $first += $facts;

                continue;
            }
            foreach ([Fact::Host, Fact::Port, Fact::Protocol] as $shared) {
                $before = $result === [] ? null : $result[0]->found[$shared->value] ?? null;
                if (! isset($facts[$shared->value]) && $before !== null && ! isset($facts[Fact::Host->value])) {
                    $facts[$shared->value] = new Found($shared, $before->value, $before->from, $before->length, [], 'told only with the first account');
                }
            }
            $result[] = new LetterAccount($facts);
        }

        return count($result) === 1 ? [new LetterAccount($result[0]->found + $first)] : $result;
    }
}
