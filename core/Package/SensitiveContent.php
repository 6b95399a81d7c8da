<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/**
 * Files that hold passwords or what was written out of a database, by what stands in them: their names can be changed.
 */
final class SensitiveContent
{
    /** So much of the beginning is looked at, in bytes. */
    public const LOOKED_AT = 262_144;

    private const PRIVATE_KEY = '/-----BEGIN (?:[A-Z0-9]+ )*PRIVATE KEY(?: BLOCK)?-----/';

    /** A file of SQLite (its format, 1.3), and one of Jet. */
    private const DATABASES = ["SQLite format 3\0", "\0\1\0\0Standard Jet DB", "\0\1\0\0Standard ACE DB"];

    /** Rows that are put into a table, as databases are written out; one in the text of a page is no dump. */
    private const ROWS = '/^[ \t]*(?:INSERT[ \t]+(?:IGNORE[ \t]+)?INTO|COPY)[ \t]+[`"\[]?[\w.]+[`"\]]?'
        .'[ \t]*(?:\([^)\n]{0,2000}\)[ \t]*)?(?:VALUES|FROM[ \t]+stdin)\b/im';

    /** The same as a table that is made. */
    private const TABLE = '/^[ \t]*CREATE[ \t]+TABLE[ \t]+(?:IF[ \t]+NOT[ \t]+EXISTS[ \t]+)?[`"\[]?\w+/im';

    private const NAMES = '(?:pass(?:word|wd|phrase)?|pwd|secret|token|api_?key|private_?key|auth_?key|salt|dsn)';

    /** A value that stands for one that is filled in elsewhere. */
    private const NO_VALUE = '(?!null\b|true\b|false\b|changeme\b|your|<|\$|%|\{|x{3,}|\*{3,})';

    /** Settings, a line each: DB_PASSWORD=..., export TOKEN="...". */
    private const SETTING = '/^[ \t]*(?:export[ \t]+)?[\w.-]*'.self::NAMES.'[\w.-]*[ \t]*[:=][ \t]*["\']?'
        .self::NO_VALUE.'[^\s"\'<>(){};,]{3,}["\']?[ \t]*\r?$/im';

    /** Settings of programs: 'password' => '...', define('DB_PASSWORD', '...'), "token": "...". */
    private const QUOTED = '/["\'][\w.-]*'.self::NAMES.'[\w.-]*["\']\s*(?:=>|,|:)\s*["\']'.self::NO_VALUE
        .'[^"\'\s]{3,200}["\']/i';

    /** Variables of programs: $password = '...'. */
    private const VARIABLE = '/\$\w*'.self::NAMES.'\w*\s*=\s*["\']'.self::NO_VALUE.'[^"\'\s]{3,200}["\']/i';

    /** An address of a server with a password in it (RFC 3986, 3.2.1). */
    private const ADDRESS = '~\b[a-z][a-z0-9+.-]{1,20}://[^\s:@/"\'<>]{1,80}:'.self::NO_VALUE
        .'[^\s@/"\'<>]{3,80}@[\w.-]+~i';

    /** What is on every page a visitor gets is no secret any more, and is daily work. */
    private const GIVEN_OUT = '/\.(?:x?html?|shtml|css|m?js|svg|map)\z/i';

    /**
     * @param  string  $bytes  of its beginning
     * @param  string  $name  decides whether words of a page are looked at as settings
     */
    public static function isOne(string $bytes, string $name): bool
    {
        $text = substr($bytes, 0, self::LOOKED_AT);
        foreach (self::DATABASES as $beginning) {
            if (str_starts_with($text, $beginning)) {
                return true;
            }
        }
        if (preg_match(self::PRIVATE_KEY, $text) === 1) {
            return true;
        }
        if (preg_match(self::GIVEN_OUT, $name) === 1 || str_contains(substr($text, 0, 4096), "\0")) {
            return false;
        }

        return (preg_match(self::ROWS, $text) === 1 && preg_match('/\.(?:md|rst|adoc)\z/i', $name) !== 1)
            || (preg_match(self::TABLE, $text) === 1 && str_contains($text, ';') && str_contains($text, '--'))
            || preg_match(self::SETTING, $text) === 1
            || preg_match(self::QUOTED, $text) === 1
            || preg_match(self::VARIABLE, $text) === 1
            || preg_match(self::ADDRESS, $text) === 1;
    }
}
