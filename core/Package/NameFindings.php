<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Closure;

/** What should not be fetched by everybody, and names that some system cannot hold or that look like others. */
final class NameFindings
{
    /** Contents are looked into up to here. */
    private const LONGEST_READ = 262_144;

    /** Files of settings with a value behind a name that sounds like a secret. */
    private const SETTING = '/^[ \t]*(?:export[ \t]+)?'
        .'[\w.-]*(?:pass(?:word|wd)?|secret|token|api_?key|private_?key|dsn)[\w.-]*[ \t]*[:=][ \t]*'
        .'["\']?(?!null\b|changeme\b|<|\$\{|%|x{3,})[^\s"\']{3,}/im';

    private const PRIVATE_KEY = '/-----BEGIN (?:[A-Z0-9]+ )*PRIVATE KEY(?: BLOCK)?-----/';

    private const DUMP = '/\.(?:sql|dump)(?:\.(?:gz|bz2|xz|zip))?\z/i';

    private const ARCHIVE = '/\.(?:zip|tar|tgz|tar\.(?:gz|bz2|xz)|7z|rar)\z/i';

    private const UNSEEN = '/[\x{200b}-\x{200f}\x{202a}-\x{202e}\x{2066}-\x{2069}\x{feff}]/u';

    private const HELD = '/(?:\A|\/)\.env(?:\.[\w-]+)?\z/i';

    private const KEYS = '/(?:\.(?:pem|key|ppk|p12|pfx)|(?:\A|\/)id_(?:rsa|dsa|ecdsa|ed25519))\z/i';

    /**
     * @param  Closure(ManifestEntry): string  $read
     * @return list<PackageFinding> in the order of names
     */
    public static function of(Manifest $manifest, Closure $read): array
    {
        $findings = [];
        foreach ($manifest->all() as $entry) {
            $path = $entry->path->toString();
            array_push($findings, ...self::ofName($path, $entry->path->name()));
            $entry->isFile() && array_push($findings, ...self::ofFile($path, $entry, $read));
        }

        return $findings;
    }

    /** @return list<PackageFinding> */
    private static function ofName(string $path, string $name): array
    {
        $findings = [];
        $why = match (true) {
            preg_match('/[<>:"|?*\\\\]/', $name) === 1 => 'has a sign in its name that many systems do not hold',
            preg_match('/[. ]\z|\A /', $name) === 1 => 'has a blank or a dot at an end, which some systems drop',
            strlen($name) > 255 => 'has a name of more than 255 bytes, which servers refuse',
            default => null,
        };
        $why === null || $findings[] = new PackageFinding(
            'name_unusual',
            Severity::Warn,
            "$why.",
            $path,
        );
        $looks = match (true) {
            preg_match(self::UNSEEN, $name) === 1 => 'has marks in its name that nobody sees',
            self::isMixed($name) => 'mixes letters of several scripts that look alike',
            default => null,
        };
        $looks === null || $findings[] = new PackageFinding(
            'name_looks_like',
            Severity::Warn,
            "$looks.",
            $path,
        );

        return $findings;
    }

    /** Latin beside Cyrillic or Greek within one word. */
    private static function isMixed(string $name): bool
    {
        return preg_match('/\p{Latin}[\p{Cyrillic}\p{Greek}]|[\p{Cyrillic}\p{Greek}]\p{Latin}/u', $name) === 1;
    }

    /**
     * @param  Closure(ManifestEntry): string  $read
     * @return list<PackageFinding>
     */
    private static function ofFile(string $path, ManifestEntry $entry, Closure $read): array
    {
        $canHold = preg_match(self::HELD, $path) === 1 || preg_match(self::KEYS, $path) === 1;
        $text = $canHold && $entry->size <= self::LONGEST_READ ? $read($entry) : '';
        if (preg_match(self::PRIVATE_KEY, $text) === 1) {
            return [new PackageFinding(
                'secret_key',
                Severity::Stop,
                'is a private key, which everybody could fetch: take it out, pack again, and make another key.',
                $path,
            )];
        }
        if ($canHold && preg_match(
            self::SETTING,
            $text,
            $match,
            PREG_OFFSET_CAPTURE,
        ) === 1) {
            return [new PackageFinding(
                'secret_setting',
                Severity::Stop,
                'holds a password or a token, which everybody could fetch: take it out and pack again.',
                $path,
                substr_count(
                    $text,
                    "\n",
                    0,
                    $match[0][1],
                ) + 1,
            )];
        }

        return match (true) {
            preg_match(self::DUMP, $path) === 1 => [new PackageFinding(
                'secret_dump',
                Severity::Warn,
                'looks like the dump of a database, and everybody could fetch it.',
                $path,
            )],
            preg_match(self::ARCHIVE, $path) === 1 => [new PackageFinding(
                'archive_inside',
                Severity::Note,
                'is an archive that everybody can fetch; it was not looked into.',
                $path,
            )],
            default => [],
        };
    }
}
