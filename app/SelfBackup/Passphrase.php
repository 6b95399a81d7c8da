<?php

declare(strict_types=1);

namespace App\SelfBackup;

use App\Failure\Problem;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Storage\WholeFile;

/** The passphrase of the nightly backups: made here, shown once, kept in a file of its own outside of the data. */
final class Passphrase
{
    /** Without those that are mistaken for one another; 24 of them are 113 bits. */
    private const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

    private const GROUPS = 6;

    private const EACH = 4;

    public static function file(): string
    {
        return (string) config('cellarium.self_backup.passphrase_file');
    }

    public static function isKept(): bool
    {
        return is_file(self::file());
    }

    /**
     * @return Secret to be shown, once
     *
     * @throws Problem where there is one, or the file is no place for it
     */
    public static function make(): Secret
    {
        $file = self::file();
        self::isKept() && throw new Problem(
            "There is a passphrase already, in $file. It is shown once; a new one would make the backups that are "
                .'there '
                .'unreadable with it. Move that file away first if that is meant.',
        );
        $var = (string) realpath((string) config('cellarium.var'));
        str_starts_with(realpath(dirname($file)).'/', "$var/") && throw new Problem(
            "$file lies in $var, among what is backed up. Name another in CELLARIUM_SELF_BACKUP_PASSPHRASE_FILE.",
        );
        $groups = [];
        for ($group = 0; $group < self::GROUPS; $group++) {
            $groups[] = implode('', array_map(
                static fn (): string => self::LETTERS[random_int(0, strlen(self::LETTERS) - 1)],
                range(1, self::EACH),
            ));
        }
        $passphrase = implode('-', $groups);
        WholeFile::write($file, "$passphrase\n", 0600);

        return new Secret($passphrase);
    }

    /** @throws Problem where there is none, or others may read it */
    public static function kept(): Secret
    {
        $file = self::file();
        $mode = @fileperms($file);
        $mode === false && throw new Problem(
            'There is no passphrase yet, so Cellarium itself is not saved. php artisan cellarium:self-backup '
                .'--new-passphrase makes one and shows it once; keep it somewhere else.',
        );
        ($mode & 0077) === 0 || throw new Problem("Others may read $file. Run: chmod 600 $file");

        return new Secret(rtrim((string) file_get_contents($file), "\r\n"));
    }
}
