<?php

declare(strict_types=1);

namespace Cellarium\Core\Reach;

/** The meaning of a file's or folder's name, before anybody looks inside. */
enum NameClue
{
    case Secret;
    case Backup;
    case Script;
    case Nothing;

    /** Settings that hold passwords, keys, and what access control reads. */
    private const SECRETS =
        '/\A\.env|\A\.(?:htpasswd|netrc|pgpass|my\.cnf)\z|\Aid_(?:rsa|ecdsa|ed25519)\z|\.(?:pem|'
        .'key|p12|pfx)\z|(?:\A|[-_.])(?:config|configuration|settings|secrets?|'
        .'credentials|database|parameters)(?:[-_.].*)?\.(?:php|inc|ini|ya?ml|json|xml)\z/i';

    /** Copies and dumps: whoever has them has what they were taken from. */
    private const BACKUPS = '/\.(?:sql|dump|bak|old|orig)(?:\.(?:gz|bz2|xz|zip))?\z|(?:\A|[-_.])(?:backups?|'
        .'dump)(?:[-_.]|\z)/i';

    private const SCRIPTS = '/\.(?:php\d?|phtml|phar|cgi|pl|py|sh|asp|aspx|jsp)\z/i';

    private const UPLOADS = '/\A(?:uploads?|files?|media|attachments?|user[-_]?(?:files|content))\z/i';

    public static function ofName(string $name): self
    {
        return match (true) {
            preg_match(self::SECRETS, $name) === 1 => self::Secret,
            preg_match(self::BACKUPS, $name) === 1 => self::Backup,
            preg_match(self::SCRIPTS, $name) === 1 => self::Script,
            default => self::Nothing,
        };
    }

    public static function isUploadFolder(string $name): bool
    {
        return preg_match(self::UPLOADS, $name) === 1;
    }
}
