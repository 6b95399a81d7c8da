<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Contents;

use Cellarium\Core\Path\RelativePath;

/** Files that nobody should be able to fetch, by their names alone; on a server nobody has looked into them. */
final class SensitiveNames
{
    /** Databases as they are written out. */
    public const DUMP = '/\.(?:sql|dump)(?:\.(?:gz|bz2|xz|zip))?\z|\.(?:sqlite3?|mdb)\z/i';

    /** Settings that hold passwords. */
    public const SETTINGS = '/(?:\A|\/)\.env(?:\.[\w-]+)?\z/i';

    /** What editors and people leave beside a file; a name without its path. */
    public const COPY = '/(?:~|\.(?:bak|orig|rej|old|sw[op]|tmp)|\.(?:html?|css|js|php)\.\d+)\z|\A#.*#\z|\A\.#'
        .'|\ACopy of |(?: - Copy| copy| \(copy\))(?: \d+)?(?=\.\w+\z)/i';

    private const KEY = '/\Aid_(?:rsa|dsa|ecdsa|ed25519)\z|\.(?:pem|key|ppk)\z/i';

    private const HISTORY = ['.git', '.svn', '.hg', '.bzr'];

    public static function isOne(RelativePath $path): bool
    {
        return self::isSecret($path) || preg_match(self::COPY, $path->name()) === 1;
    }

    /** Databases, passwords, keys and the history of a site; not what was only left beside a file. */
    public static function isSecret(RelativePath $path): bool
    {
        return preg_match(self::DUMP, $path->name()) === 1
            || preg_match(self::SETTINGS, $path->name()) === 1
            || preg_match(self::KEY, $path->name()) === 1
            || array_intersect($path->segments(), self::HISTORY) !== [];
    }
}
