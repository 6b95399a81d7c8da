<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\StartPages;

/** What a person should know about a package before it goes anywhere. */
final class Findings
{
    /**
     * @param  list<string>  $left  leftovers that were not taken in
     * @return list<PackageFinding> what stops first
     */
    public static function of(Manifest $manifest, ?string $wrapper, array $left): array
    {
        $findings = self::startPage($manifest);
        if ($wrapper !== null) {
            $findings[] = new PackageFinding(
                'wrapper_lifted',
                Severity::Note,
                'Everything lay inside the '
                    ."folder $wrapper; its contents land in the document root, the folder does not.",
                path: $wrapper,
            );
        }
        foreach (self::caseTwins($manifest) as [$one, $other]) {
            $findings[] = new PackageFinding(
                'case_twins',
                Severity::Warn,
                "$one and $other differ only in case: two files to a server, one on many computers.",
                path: $one,
            );
        }
        if ($left !== []) {
            $count = count($left);
            $findings[] = new PackageFinding(
                'leftovers',
                Severity::Note,
                $count === 1
                    ? "$left[0] does not belong to a site and does not land."
                    : "$count entries that do not belong to a site ($left[0] and others) do not land.",
                path: $left[0],
            );
        }

        return $findings;
    }

    /** @return list<PackageFinding> */
    private static function startPage(Manifest $manifest): array
    {
        $present = array_values(
            array_filter(
                StartPages::USUAL,
                static fn (string $name): bool => $manifest->get($name)?->isFile() ?? false,
            ),
        );
        if ($present === []) {
            $deeper = null;
            foreach ($manifest->files() as $file) {
                if (in_array($file->path->name(), StartPages::USUAL, true)) {
                    $deeper = $file->path->toString();
                    break;
                }
            }
            $hint = $deeper === null
                ? 'Name the first page '.StartPages::USUAL[0].' and pack again.'
                : "The nearest is $deeper; pack the folder it lies in.";

            return [
                new PackageFinding(
                    'no_start_page',
                    Severity::Stop,
                    "There is no start page at the top, so visitors would see a bare listing. $hint",
                ),
            ];
        }
        if (count($present) > 1) {
            return [
                new PackageFinding(
                    'several_start_pages',
                    Severity::Note,
                    implode(' and ', $present)." both stand at the top; servers usually show $present[0].",
                    path: $present[0],
                ),
            ];
        }

        return [];
    }

    /** @return list<array{string, string}> */
    private static function caseTwins(Manifest $manifest): array
    {
        $seen = [];
        $twins = [];
        foreach ($manifest->all() as $entry) {
            $path = $entry->path->toString();
            $folded = mb_strtolower($path);
            isset($seen[$folded]) ? $twins[] = [$seen[$folded], $path] : $seen[$folded] = $path;
        }

        return $twins;
    }
}
