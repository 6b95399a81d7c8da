<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\SensitiveNames;
use Cellarium\Core\Reference\Document;

/** Private keys, passwords in settings, and tokens by what they are called and how random they look. */
final class SecretCheck implements TextCheck
{
    /** Files of settings with a value behind a name that sounds like a secret. */
    private const SETTING = '/^[ \t]*(?:export[ \t]+)?'
        .'[\w.-]*(?:pass(?:word|wd)?|secret|token|api_?key|private_?key|dsn)[\w.-]*[ \t]*[:=][ \t]*'
        .'["\']?(?!null\b|changeme\b|<|\$\{|%|x{3,})[^\s"\']{3,}/im';

    private const PRIVATE_KEY = '/-----BEGIN (?:[A-Z0-9]+ )*PRIVATE KEY(?: BLOCK)?-----\s+[A-Za-z0-9+\/=]/';

    /** A text of letters and digits right behind a name that sounds like a secret. */
    private const TOKEN = '~(?:secret|token|passwo?r?d|api[_-]?key|private[_-]?key)[\w-]{0,20}+["\']?\s*+'
        .'(?:=>|[:=])\s*+["\']([A-Za-z0-9+/_=.-]{20,200})["\']~i';

    /** JSON Web Signature, compact (RFC 7515, 7.1): three parts, the first two of JSON. */
    private const SIGNED = '~\beyJ[\w-]{8,}\.eyJ[\w-]{8,}\.[\w-]{16,}~';

    /** An address of a database or a mail server with a password (RFC 3986, 3.2.1). */
    private const ADDRESS = '~\b(?:mysql|mariadb|postgres(?:ql)?|mongodb(?:\+srv)?|redis|amqps?|smtps?|ftps?|sftp)://'
        .'[^\s:@/"\'<>]{1,80}:(?!pass|secret|pwd|\*|\.|\$|\{|<|%|x{3})([^\s@/"\'<>]{3,80})@[\w.-]+~i';

    /** Bits for a letter; words of any language have fewer. */
    private const RANDOM_FROM = 3.6;

    /** @var list<PackageFinding> */
    private array $findings = [];

    public function look(ManifestEntry $entry, string $text, ?Document $document): void
    {
        $path = $entry->path->toString();
        if (preg_match(self::PRIVATE_KEY, $text, $match, PREG_OFFSET_CAPTURE) === 1) {
            $this->findings[] = new PackageFinding(
                FindingCode::SecretKey,
                Severity::Stop,
                'holds a private key, which everybody could fetch: take it out, and make another key.',
                $path,
                Quote::line($text, $match[0][1]),
            );
        } elseif (preg_match(SensitiveNames::SETTINGS, $path) === 1) {
            $this->settings($path, $text);
        } elseif (preg_match('/\.(?:php|phtml)\z/i', $path) !== 1) {
            // A server runs those and gives away none of their text.
            $this->tokens($path, $text);
        }
    }

    public function findings(): array
    {
        return $this->findings;
    }

    private function settings(string $path, string $text): void
    {
        if (preg_match(self::SETTING, $text, $match, PREG_OFFSET_CAPTURE) === 1) {
            $this->findings[] = new PackageFinding(
                FindingCode::SecretSetting,
                Severity::Stop,
                'holds a password or a token, which everybody could fetch: take it out, and change the secret.',
                $path,
                Quote::line($text, $match[0][1]),
            );
        }
    }

    /** The first of each file is told, and never what it is. */
    private function tokens(string $path, string $text): void
    {
        // Logins in the links of a page are told as what they are.
        $at = (preg_match('/\.(?:x?html?|shtml|svg)\z/i', $path) === 1 ? null : self::address($text))
            ?? self::signed($text)
            ?? self::random($text);
        if ($at !== null) {
            $this->findings[] = new PackageFinding(
                FindingCode::SecretToken,
                Severity::Warn,
                'holds what looks like a password or a token, and everybody can fetch it. Were it a secret, it is '
                    .'none any more: change it where it is from.',
                $path,
                Quote::line($text, $at),
            );
        }
    }

    private static function address(string $text): ?int
    {
        $found = str_contains($text, '://') ? preg_match(self::ADDRESS, $text, $match, PREG_OFFSET_CAPTURE) : 0;

        return $found === 1 ? $match[0][1] : null;
    }

    private static function signed(string $text): ?int
    {
        $found = str_contains($text, 'eyJ') ? preg_match(self::SIGNED, $text, $match, PREG_OFFSET_CAPTURE) : 0;

        return $found === 1 ? $match[0][1] : null;
    }

    private static function random(string $text): ?int
    {
        preg_match_all(self::TOKEN, $text, $match, PREG_OFFSET_CAPTURE);
        foreach ($match[1] as [$value, $at]) {
            if (self::isRandom($value)) {
                return $at;
            }
        }

        return null;
    }

    /** Letters and digits, mixed as chance does it: the entropy of its characters (Shannon), in bits. */
    private static function isRandom(string $value): bool
    {
        if (preg_match('/\d/', $value) !== 1 || preg_match('/[A-Za-z]/', $value) !== 1) {
            return false;
        }
        $bits = 0.0;
        foreach (count_chars($value, 1) as $count) {
            $share = $count / strlen($value);
            $bits -= $share * log($share, 2);
        }

        return $bits >= self::RANDOM_FROM;
    }
}
