<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Fit;

use Cellarium\Core\Manifest\Manifest;

/**
 * Marks by which a package is known again: its titles, the hosts it calls its own, and some of its files.
 *
 * Of many files those with the smallest hashes count (a bottom-k sketch): two versions that have most files in common
 * have most marks in common, however large they are.
 */
final class PackageMarks
{
    public const TITLE = 't';

    public const FILE = 'f';

    public const HOST = 'h';

    private const MOST_FILES = 140;

    private const MOST_HOSTS = 20;

    /** Smaller ones are placeholders and the like. */
    private const LEAST_BYTES = 150;

    private const LENGTH = 32;

    /** @return list<string> 32 characters each, of a title, a file or a host by the first of them */
    public static function find(Manifest $manifest, PackageTraits $traits): array
    {
        $marks = array_map(
            static fn (string $title): string => self::mark(self::TITLE, hash('sha256', mb_strtolower($title))),
            $traits->titles,
        );
        foreach (array_slice(array_keys($traits->own), 0, self::MOST_HOSTS) as $host) {
            $marks[] = self::host((string) $host);
        }
        $hashes = [];
        foreach ($manifest->files() as $file) {
            if ($file->size >= self::LEAST_BYTES && $file->sha256 !== null) {
                $hashes[$file->sha256] = true;
            }
        }
        ksort($hashes, SORT_STRING);
        foreach (array_slice(array_keys($hashes), 0, self::MOST_FILES) as $hash) {
            $marks[] = self::mark(self::FILE, (string) $hash);
        }

        return array_values(array_unique($marks));
    }

    /** Of a domain that is named as the package's own; with "www." and without it are one. */
    public static function host(string $domain): string
    {
        return self::mark(self::HOST, hash('sha256', (string) preg_replace('/\Awww\./', '', strtolower($domain))));
    }

    private static function mark(string $kind, string $hash): string
    {
        return substr($kind.$hash, 0, self::LENGTH);
    }
}
