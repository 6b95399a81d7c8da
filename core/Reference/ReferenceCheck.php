<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/**
 * Follows every reference of a site within itself. One document is held at a time; of the others only the names of
 * places in them, once a fragment asks for these.
 */
final class ReferenceCheck
{
    /** @var list<BrokenReference> */
    private array $broken = [];

    /** @var array<string, array<string, int>> */
    private array $links = [];

    /** @var array<string, array{int, string, int}> */
    private array $hosts = [];

    /** @var array<string, array{int, string, int}|false> false for images that are shown as large as they are */
    private array $shown = [];

    /** @var array<string, array<string, true>> ids by file */
    private array $ids = [];

    /** @var array<string, true> of all scripts together */
    private array $beginnings = [];

    /** @var list<array{ResolvedReference, string, int, Reference}> what leads to a place in a page, and its place */
    private array $places = [];

    public function __construct(private readonly Resolver $resolver)
    {
    }

    public function add(string $file, Document $document): void
    {
        $known = [];
        $this->ids[$file] = $document->ids;
        $this->beginnings += $document->beginnings;
        foreach ($document->references as $reference) {
            // The same address again is as right or wrong as before.
            $key = $reference->kind->value.$reference->value;
            $this->note(
                $file,
                $document,
                $reference,
                $known[$key] ??= $this->resolver->resolve($file, $document, $reference),
            );
        }
    }

    public function finish(): References
    {
        foreach ($this->places as [$place, $file, $line, $reference]) {
            if (isset($this->ids[$place->target]) && ! $this->mayHave((string) $place->target, $place->fragment)) {
                $this->broken[] = new BrokenReference(Fault::NoSuchPlace, $file, $line, $reference);
            }
        }
        $this->places = [];

        return new References($this->broken, $this->links, $this->hosts, array_filter($this->shown));
    }

    /** A number behind what a script begins names with may be made by it. */
    private function mayHave(string $file, ?string $fragment): bool
    {
        if (isset($this->ids[$file][$fragment])) {
            return true;
        }

        return preg_match('/\A(.+[-_])\w+\z/', (string) $fragment, $match) === 1
            && isset($this->beginnings[$match[1]]);
    }

    private function note(string $file, Document $document, Reference $reference, ResolvedReference $found): void
    {
        if ($found->fault !== null) {
            $this->broken[] = new BrokenReference(
                $found->fault,
                $file,
                $document->line($reference->offset),
                $reference,
                $found->suggestion,
            );
        }
        if ($found->host !== null) {
            $this->hosts[$found->host] ??= [0, $file, $document->line($reference->offset)];
            $this->hosts[$found->host][0]++;
        }
        if ($found->target !== null && $found->target !== $file) {
            $this->links[$file][$found->target] = ($this->links[$file][$found->target] ?? 0) + 1;
        }
        if ($found->target !== null) {
            $this->noteWidth($file, $document, $reference, $found->target);
            self::isPlace($found) && $this->places[] = [
                $found,
                $file,
                $document->line($reference->offset),
                $reference,
            ];
        }
    }

    private function noteWidth(string $file, Document $document, Reference $reference, string $image): void
    {
        $known = $this->shown[$image] ?? null;
        if ($reference->kind === ReferenceKind::Link || $known === false) {
            return;
        }
        if ($reference->shownWidth === null) {
            $this->shown[$image] = false;
        } elseif ($known === null || $known[0] < $reference->shownWidth) {
            $this->shown[$image] = [$reference->shownWidth, $file, $document->line($reference->offset)];
        }
    }

    /** "#" and "#top" lead to the top of every document; text fragments and states of scripts are no places. */
    private static function isPlace(ResolvedReference $found): bool
    {
        return $found->fragment !== null
            && preg_match('~^(?!top$)[^:/!=&]+$~iD', $found->fragment) === 1
            && preg_match('/\.(?:html?|xhtml|svg)$/iD', (string) $found->target) === 1;
    }
}
