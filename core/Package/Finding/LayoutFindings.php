<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Package\Type\Place;
use Cellarium\Core\Reference\Names;

/** Findings about the layout of a package: its start page, what it was wrapped in, names that meet. */
final class LayoutFindings
{
    /** Names that people give to a first page. */
    private const FIRST = '/\A(?:home(?:page)?|start(?:page|seite)?|main|welcome|accueil|inicio|index\d?|default)'
        .'\.(?:html?|php)\z/i';

    /**
     * @param  list<string>  $left  leftovers that were not taken in
     * @return list<PackageFinding>
     */
    public static function find(Manifest $manifest, ?string $wrapper, array $left, ?PackageType $type = null): array
    {
        $findings = self::startPage(self::served($manifest, $type));
        if ($wrapper !== null) {
            $findings[] = new PackageFinding(
                FindingCode::WrapperLifted,
                Severity::Note,
                "Everything lay inside the folder $wrapper; its contents land in the document root, the folder "
                    .'does not.',
                $wrapper,
            );
        }
        array_push($findings, ...self::twins($manifest));
        if ($left !== []) {
            $count = count($left);
            $findings[] = new PackageFinding(
                FindingCode::Leftovers,
                Severity::Note,
                $count === 1
                    ? "$left[0] does not belong to a site and does not land."
                    : "$count entries that do not belong to a site ($left[0] and others) do not land.",
                $left[0],
            );
        }

        return $findings;
    }

    /** What lands in the document root; null where it is a part of a system that has its start page already. */
    private static function served(Manifest $manifest, ?PackageType $type): ?Manifest
    {
        return match ($type?->place) {
            Place::InsideSystem => null,
            Place::AboveDocumentRoot => $manifest->inside((string) $type->directory),
            default => $manifest,
        };
    }

    /** @return list<PackageFinding> */
    private static function startPage(?Manifest $manifest): array
    {
        if ($manifest === null) {
            return [];
        }
        $present = array_values(array_filter(
            StartPages::USUAL,
            static fn (string $name): bool => $manifest->get($name)?->isFile() ?? false,
        ));

        return match (count($present)) {
            0 => [self::missing($manifest)],
            1 => [],
            default => [new PackageFinding(
                FindingCode::SeveralStartPages,
                Severity::Note,
                implode(' and ', $present)." both stand at the top; servers usually show $present[0].",
                $present[0],
            )],
        };
    }

    private static function missing(Manifest $manifest): PackageFinding
    {
        $top = array_filter($manifest->files(), static fn (ManifestEntry $entry): bool => $entry->path->depth() === 1);
        foreach ($top as $file) {
            $name = $file->path->name();
            if (preg_match(self::FIRST, $name) === 1) {
                $right = 'index.'.strtolower(pathinfo($name, PATHINFO_EXTENSION));

                return new PackageFinding(
                    FindingCode::StartPageName,
                    Severity::Stop,
                    "$name looks like the first page, and servers do not look for that name: name it $right.",
                    $name,
                    suggestion: $right,
                );
            }
        }
        $deeper = self::deeper($manifest);

        return $deeper === null
            ? new PackageFinding(
                FindingCode::NoStartPage,
                Severity::Stop,
                'There is no start page at the top, so visitors would see a bare listing. Name the first page '
                    .StartPages::USUAL[0].' and pack again.',
            )
            : new PackageFinding(
                FindingCode::StartPageElsewhere,
                Severity::Stop,
                'There is no start page at the top, so visitors would see a bare listing. The nearest is '
                    ."$deeper; pack the folder it lies in.",
                $deeper,
                suggestion: dirname($deeper),
            );
    }

    /** The start page that lies the least deep, and by the names people give to what they have built. */
    private static function deeper(Manifest $manifest): ?string
    {
        $found = [];
        foreach ($manifest->files() as $file) {
            if (in_array($file->path->name(), StartPages::USUAL, true)) {
                $built = preg_match('~^(?:dist|build|public|www|htdocs|html|out|_?site)/~i', "$file->path") === 1;
                $found["$file->path"] = [$built ? 0 : 1, $file->path->depth()];
            }
        }
        asort($found);

        return array_key_first($found);
    }

    /** @return list<PackageFinding> */
    private static function twins(Manifest $manifest): array
    {
        $seen = [];
        $twins = [];
        foreach ($manifest->all() as $entry) {
            $path = $entry->path->toString();
            $folded = Names::fold($path);
            if (isset($seen[$folded])) {
                $twins[] = new PackageFinding(
                    FindingCode::CaseTwins,
                    Severity::Warn,
                    "$seen[$folded] and $path differ only in case or in how letters are composed: two files to a "
                        .'server, one on many computers.',
                    $seen[$folded],
                );
            }
            $seen[$folded] ??= $path;
        }

        return $twins;
    }
}
