<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Contents\SensitiveNames;

/** Names that some system cannot hold or that look like others, and kinds of files that everybody should not fetch. */
final class NameFindings
{
    private const ARCHIVE = '/\.(?:zip|tar|tgz|tar\.(?:gz|bz2|xz)|7z|rar)\z/i';

    /** Two endings, of which the last was added by a program that hides it. */
    private const ENDING_ADDED = '/\.(?:x?html?|css|m?js|php|xml|svg)(\.(?:txt|rtf|docx?|odt))\z/i';

    private const UNSEEN = '/[\x{200b}-\x{200f}\x{202a}-\x{202e}\x{2066}-\x{2069}\x{feff}]/u';

    /** @return list<PackageFinding> in the order of names */
    public static function find(Manifest $manifest): array
    {
        $findings = [];
        foreach ($manifest->all() as $entry) {
            $path = $entry->path->toString();
            array_push($findings, ...self::ofName($path, $entry->path->name()));
            $entry->isFile() && array_push($findings, ...self::ofKind($path));
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
            str_contains($name, '#') || preg_match('/%[\da-f]{2}/i', $name) === 1 => 'has a sign in its name that '
                .'means something else in an address',
            strlen($name) > 255 => 'has a name of more than 255 bytes, which servers refuse',
            default => null,
        };
        $why === null || $findings[] = new PackageFinding(FindingCode::NameUnusual, Severity::Warn, "$why.", $path);
        $looks = match (true) {
            preg_match(self::UNSEEN, $name) === 1 => 'has marks in its name that nobody sees',
            self::isMixed($name) => 'mixes letters of several scripts that look alike',
            default => null,
        };
        $looks === null || $findings[] = new PackageFinding(
            FindingCode::NameLooksLike,
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

    /** @return list<PackageFinding> */
    private static function ofKind(string $path): array
    {
        return match (true) {
            preg_match(SensitiveNames::DUMP, $path) === 1 => [new PackageFinding(
                FindingCode::SecretDump,
                Severity::Warn,
                'looks like a database or the dump of one, and everybody could fetch it.',
                $path,
            )],
            preg_match(self::ARCHIVE, $path) === 1 => [new PackageFinding(
                FindingCode::ArchiveInside,
                Severity::Note,
                'is an archive that everybody can fetch; it was not looked into.',
                $path,
            )],
            preg_match(self::ENDING_ADDED, $path, $match) === 1 => [new PackageFinding(
                FindingCode::FileEnding,
                Severity::Warn,
                "ends in $match[1], added by a program that hides it: nothing that asks for the file without it finds "
                    .'it.',
                $path,
                suggestion: substr($path, 0, -strlen($match[1])),
            )],
            default => [],
        };
    }
}
