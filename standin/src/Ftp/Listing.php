<?php

declare(strict_types=1);

namespace Cellarium\Standin\Ftp;

/**
 * The lines that entries are written as: the facts of RFC 3659 section 7, and the Unix style that LIST has by custom.
 */
final class Listing
{
    /**
     * @var array<int, int> sizes that are claimed instead of the right ones, by inode, so that they outlive a renaming
     */
    private static array $claimed = [];

    /** @param  int|null  $size  bytes that listings and SIZE show from now on; null for the right number */
    public static function claim(string $real, ?int $size): void
    {
        $inode = (int) @fileinode($real);
        unset(self::$claimed[$inode]);
        $size === null ?: self::$claimed[$inode] = $size;
    }

    /** @param  array<array-key, int>  $stat  of lstat() */
    private static function size(array $stat): int
    {
        return self::$claimed[$stat['ino'] ?? 0] ?? $stat['size'] ?? 0;
    }

    public static function sizeOf(string $real): int
    {
        clearstatcache(true, $real);
        $stat = @stat($real);

        return $stat === false ? 0 : self::size($stat);
    }

    /** @return list<string> names in a directory, sorted by their bytes, without the dots */
    public static function names(string $real): array
    {
        $names = @scandir($real);

        return $names === false
            ? throw Reply::forbidden(basename($real))
            : array_values(array_diff($names, ['.', '..']));
    }

    public static function facts(string $real, string $name, ?string $type = null): string
    {
        clearstatcache(true, $real);
        $stat = @lstat($real);
        if ($stat === false) {
            throw Reply::notFound($name);
        }
        $type ??= match ($stat['mode'] & 0170000) {
            0040000 => 'dir',
            0120000 => 'OS.unix=slink:'.self::target($real),
            default => 'file',
        };
        $size = $type === 'file' ? 'size='.self::size($stat).';' : '';
        $perm = $type === 'file' ? 'adfrw' : 'cdeflmp';

        return sprintf(
            'type=%s;%smodify=%s;unix.mode=%04o;perm=%s; %s',
            $type,
            $size,
            gmdate('YmdHis', $stat['mtime']),
            $stat['mode'] & 07777,
            $perm,
            $name,
        );
    }

    /** Where a link points; without it where its name would end the fact. */
    private static function target(string $real): string
    {
        $target = (string) readlink($real);

        return preg_match('/[;\x00-\x1f]/', $target) === 1 ? '' : $target;
    }

    public static function unixLine(string $real, string $name): string
    {
        clearstatcache(true, $real);
        $stat = @lstat($real);
        if ($stat === false) {
            throw Reply::notFound($name);
        }
        $kind = match ($stat['mode'] & 0170000) {
            0040000 => 'd',
            0120000 => 'l',
            default => '-',
        };
        $rights = '';
        foreach ([6, 3, 0] as $shift) {
            $bits = ($stat['mode'] >> $shift) & 7;
            $rights .= ($bits & 4 ? 'r' : '-').($bits & 2 ? 'w' : '-').($bits & 1 ? 'x' : '-');
        }
        $recent = abs(time() - $stat['mtime']) < 180 * 86400;

        $target = $kind === 'l' ? ' -> '.readlink($real) : '';

        return sprintf(
            '%s%s %3d ftp ftp %12d %s %s',
            $kind,
            $rights,
            $stat['nlink'],
            self::size($stat),
            gmdate($recent ? 'M d H:i' : 'M d  Y', $stat['mtime']),
            $name,
        ).$target;
    }

    /** In the style of the DIR command. */
    public static function dosLine(string $real, string $name): string
    {
        clearstatcache(true, $real);
        $size = is_dir($real) ? '<DIR>         ' : sprintf('%14d', (int) filesize($real));

        return gmdate('m-d-y  h:iA', (int) filemtime($real))."       $size $name";
    }
}
