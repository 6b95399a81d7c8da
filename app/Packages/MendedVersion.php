<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Finding\Severity;

/** The version of a mended package, and whether it is better than the one it is made from. */
final class MendedVersion
{
    /** "3.2" becomes "3.2 mended 1", that "3.2 mended 2". */
    public static function next(Package $package): string
    {
        $base = trim((string) preg_replace('/\s*mended \d+\z/', '', (string) $package->version));
        $taken = Package::where('name', $package->name)
            ->whereNotNull('mended_from')
            ->pluck('version')
            ->map(static fn (?string $version): int => preg_match(
                '/\A'.preg_quote($base, '/').'\s*mended (\d+)\z/',
                (string) $version,
                $match,
            ) === 1 ? (int) $match[1] : 0)
            ->max();

        return trim("$base mended ".((int) $taken + 1));
    }

    /**
     * What is worse than a note and of a kind that there is more of than before; null where there is none.
     *
     * @param  list<PackageFinding>  $before
     * @param  list<PackageFinding>  $after
     */
    public static function worse(array $before, array $after): ?PackageFinding
    {
        $counts = [];
        foreach ($before as $finding) {
            $counts[$finding->code->value] = ($counts[$finding->code->value] ?? 0) + 1;
        }
        foreach ($after as $finding) {
            $left = $counts[$finding->code->value] = ($counts[$finding->code->value] ?? 0) - 1;
            if ($left < 0 && $finding->severity !== Severity::Note) {
                return $finding;
            }
        }

        return null;
    }
}
