<?php

declare(strict_types=1);

namespace App\SelfBackup;

use App\Failure\Problem;
use Cellarium\Core\Storage\ScratchFile;

/** The whole database as SQL, triggers included. */
final class DatabaseDump
{
    /** @throws Problem */
    public static function write(): ScratchFile
    {
        $file = ScratchFile::create();
        DatabaseUser::ofBackups()->run(
            ['mariadb-dump', '--single-transaction', '--triggers', '--hex-blob', '--skip-dump-date'],
            [1 => ['file', $file->path, 'wb']],
            'The database could not be written out',
        );
        str_contains((string) file_get_contents($file->path, offset: max(0, (int) filesize($file->path) - 200)), 'Dump '
            .'completed')
            || throw new Problem('The database was not written out whole. Make room, then try again.');

        return $file;
    }

    /**
     * @param  iterable<string>  $pieces
     *
     * @throws Problem
     */
    public static function load(iterable $pieces, DatabaseUser $into): void
    {
        $file = ScratchFile::create();
        $out = fopen($file->path, 'wb');
        foreach ($pieces as $piece) {
            $out !== false && @fwrite($out, $piece) === strlen($piece)
                || throw new Problem('There is no room to open the backup. Make some, then try again.');
        }
        $out === false || fclose($out);
        $owned = self::ownedByWhoeverLoads($file);
        $into->run(['mariadb'], [0 => ['file', $owned->path, 'rb']], 'The database could not be brought back');
    }

    /**
     * Triggers belong to whoever loads them: who made them may not exist there, and making them for somebody else needs
     * a right that nobody here has.
     */
    private static function ownedByWhoeverLoads(ScratchFile $file): ScratchFile
    {
        $owned = ScratchFile::create();
        $in = fopen($file->path, 'rb');
        $out = fopen($owned->path, 'wb');
        while ($in !== false && $out !== false && ($line = fgets($in)) !== false) {
            if (str_starts_with($line, '/*!50003 CREATE*/')) {
                $line = (string) preg_replace('~/\*!50017 DEFINER=`[^`]*`@`[^`]*`\*/~', '', $line);
            }
            @fwrite($out, $line) === strlen($line)
                || throw new Problem('There is no room to open the backup. Make some, then try again.');
        }

        return $owned;
    }
}
