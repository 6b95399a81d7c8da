<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Drawing;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Contents\WellKnownFiles;
use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Reference\Links;

/**
 * The drawing of references: files along a line in the order of their directories, an arc for the references between
 * two.
 *
 * Where there is no room for all files, directories stand for what lies in them, but for one that is opened. What
 * visitors do not come to from the start page stands apart at the end.
 */
final readonly class ReferenceDrawing
{
    /** Places on the line. */
    public const MOST = 56;

    private const BROKEN = [FindingCode::ReferenceCase, FindingCode::ReferenceMissing, FindingCode::ReferenceListing];

    /**
     * @param  list<DrawnNode>  $nodes  in the order of the line
     * @param  list<DrawnArc>  $arcs  broken ones last, so that they lie on top
     */
    private function __construct(public array $nodes, public array $arcs)
    {
    }

    /**
     * @param  list<PackageFinding>  $findings
     * @param  string  $open  the directory that is opened, "" is the top
     * @param  string  $folder  that is the root of the site, "" is the top
     */
    public static function fromLinks(
        Manifest $manifest,
        Links $links,
        array $findings,
        string $open = '',
        string $folder = '',
    ): self {
        $files = array_map(static fn (ManifestEntry $one): string => $one->path->toString(), $manifest->files());
        $places = new Places($files, $open);
        $start = $manifest->startPage(StartPages::USUAL, $folder)?->path->toString();
        $reached = $links->reached([
            ...($start === null ? [] : [$start]),
            ...array_values(array_filter($files, WellKnownFiles::isOne(...))),
        ]);
        $broken = array_filter(
            $findings,
            static fn (PackageFinding $one): bool => in_array($one->code, self::BROKEN, true),
        );
        $nodes = $places->nodes($reached, array_filter(
            $broken,
            static fn (PackageFinding $one): bool => $one->suggestion === null,
        ) !== []);
        $numbers = [];
        foreach ($nodes as $number => $node) {
            $numbers["{$node->kind->value} $node->path"] = $number;
        }
        $arcs = [];
        foreach ($links->to as $from => $targets) {
            foreach ($targets as $target => $times) {
                $key = $numbers[$places->of((string) $from)].' '.$numbers[$places->of((string) $target)];
                $arcs[$key] = ($arcs[$key] ?? 0) + $times;
            }
        }
        $brokenArcs = [];
        foreach ($broken as $finding) {
            $to = $finding->suggestion === null ? Places::MISSING : $places->of($finding->suggestion);
            $key = $numbers[$places->of((string) $finding->path)].' '.($numbers[$to] ?? $numbers[Places::MISSING]);
            $brokenArcs[$key] = ($brokenArcs[$key] ?? 0) + 1;
        }

        return new self($nodes, [...self::arcs($arcs, false), ...self::arcs($brokenArcs, true)]);
    }

    /**
     * @param  array<string, int>  $counts  by "from to"
     * @return list<DrawnArc> none from a place to itself, but broken ones
     */
    private static function arcs(array $counts, bool $isBroken): array
    {
        $arcs = [];
        foreach ($counts as $key => $times) {
            [$from, $to] = array_map(intval(...), explode(' ', $key));
            if ($from !== $to || $isBroken) {
                $arcs[] = new DrawnArc($from, $to, $times, $isBroken);
            }
        }

        return $arcs;
    }
}
