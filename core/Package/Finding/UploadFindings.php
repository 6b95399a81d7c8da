<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\Leftovers;
use Cellarium\Core\Package\Contents\PackageContents;
use Cellarium\Core\Package\Contents\UploadPlace;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Words\Count;

/** Files that come by hand, by their names alone and by what lies there already. */
final readonly class UploadFindings
{
    /** Longer ones no file system of a server holds, in bytes (NAME_MAX). */
    private const LONGEST_NAME = 255;

    private const TEXT = '/\.(?:x?html?|shtml|css|m?js|svg|php\d?|phtml|txt|xml|json)\z/i';

    private const LONGEST_TEXT = 1_000_000;

    public function __construct(private PackageContents $contents)
    {
    }

    /** @return list<PackageFinding> each that does not go, the whole of a folder told once */
    public static function leftovers(Manifest $brought): array
    {
        $files = [];
        foreach ($brought->files() as $file) {
            $leftover = Leftovers::within($file->path);
            $leftover === null || $files["$leftover"][] = "$file->path";
        }
        $findings = [];
        foreach ($files as $path => $inside) {
            $count = count($inside);
            $findings[] = new PackageFinding(
                FindingCode::Leftovers,
                Severity::Stop,
                $inside === [(string) $path]
                    ? 'is left by a system or an editor, and part of no site.'
                    : 'holds '.Count::words($count, 'file')
                        .' of a system, an editor or a version control, and is part of no site.',
                (string) $path,
            );
        }

        return $findings;
    }

    /** @return list<PackageFinding> */
    public static function tooLong(Manifest $brought): array
    {
        $isTooLong = static fn (ManifestEntry $entry): bool => strlen($entry->path->name()) > self::LONGEST_NAME;

        return array_map(static fn (ManifestEntry $entry): PackageFinding => new PackageFinding(
            FindingCode::NameUnusual,
            Severity::Stop,
            'has a name of more than '.self::LONGEST_NAME.' bytes, which servers refuse.',
            "$entry->path",
        ), array_values(array_filter($brought->all(), $isTooLong)));
    }

    /** @return list<PackageFinding> of texts whose last version is known here */
    public function encodings(Manifest $brought, UploadPlace $place): array
    {
        $findings = [];
        foreach ($brought->files() as $file) {
            $before = $place->server->get($file->path);
            $isCompared = $before?->sha256 !== null && $before->sha256 !== $file->sha256
                && max($file->size, $before->size) <= self::LONGEST_TEXT
                && preg_match(self::TEXT, "$file->path") === 1;
            $was = $isCompared ? $this->encoding($before) : null;
            $is = $was === null ? null : $this->encoding($file);
            if ($is !== null && $is !== $was) {
                $findings[] = new PackageFinding(
                    FindingCode::TextEncoding,
                    Severity::Warn,
                    "is $is; the one that is there is $was. Visitors may get wrong letters: save it as before.",
                    "$file->path",
                );
            }
        }

        return $findings;
    }

    /** In words; null where nothing tells it: plain ASCII is the same in all, and the text may be gone. */
    private function encoding(ManifestEntry $file): ?string
    {
        try {
            $text = $this->contents->text($file);
        } catch (StoreFailure) {
            return null;
        }

        return match (true) {
            str_starts_with($text, "\xff\xfe"), str_starts_with($text, "\xfe\xff") => 'in UTF-16',
            preg_match('/[\x80-\xff]/', $text) !== 1 => null,
            preg_match('//u', $text) === 1 => 'in UTF-8',
            default => 'in an encoding of one byte a letter',
        };
    }
}
