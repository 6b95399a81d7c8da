<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\StartPages;
use Closure;

/**
 * Follows every reference of a site within itself. One document is held at a time; of the others only the names of
 * places in them, once a fragment asks for these.
 */
final class ReferenceCheck
{
    private const PAGES = ['html', 'htm', 'xhtml', 'svg', 'php', 'phtml', 'shtml'];

    private const SCRIPTS = ['js', 'mjs'];

    /** Larger ones are not written by hand, and nobody waits for them. */
    private const LONGEST = 16_000_000;

    private readonly Names $names;

    /** @var array<string, array<string, true>> ids by file */
    private array $ids = [];

    /** @var list<array{string, string, int, Reference}> file that is meant, and where it is meant */
    private array $places = [];

    /**
     * @param  Closure(ManifestEntry): string  $read  the contents of a file
     * @param  list<string>  $own  hosts that are the site itself
     */
    public function __construct(
        private readonly Manifest $manifest,
        private readonly Closure $read,
        private readonly array $own = [],
    ) {
        $this->names = new Names($manifest);
    }

    /** @return list<BrokenReference> in the order of files and lines */
    public function broken(): array
    {
        $broken = [];
        foreach ($this->manifest->files() as $entry) {
            $document = $this->document($entry);
            if ($document !== null) {
                array_push($broken, ...$this->ofDocument($entry->path->toString(), $document));
            }
        }
        foreach ($this->places as [$target, $file, $line, $reference]) {
            $fragment = (string) Address::of($reference->value, $file)->fragment;
            if (isset($this->ids[$target]) && ! isset($this->ids[$target][$fragment])) {
                $broken[] = new BrokenReference(
                    Fault::NoSuchPlace,
                    $file,
                    $line,
                    $reference,
                );
            }
        }

        return $broken;
    }

    /** Null for files in which nothing is looked for. */
    private function document(ManifestEntry $entry): ?Document
    {
        $ending = strtolower(pathinfo($entry->path->name(), PATHINFO_EXTENSION));
        $isPage = in_array($ending, self::PAGES, true);
        $isScript = in_array($ending, self::SCRIPTS, true);
        if (! $isPage && ! $isScript && $ending !== 'css' && $ending !== 'webmanifest') {
            return null;
        }
        if ($entry->size > self::LONGEST) {
            return null;
        }
        $text = ($this->read)($entry);
        if ($isPage) {
            return Html::scan($text);
        }
        $document = new Document($text);
        match (true) {
            $isScript => Script::scan($document, $text),
            $ending === 'css' => self::styles($document, $text),
            default => WebManifest::scan($document, $text),
        };

        return $document;
    }

    private static function styles(Document $document, string $text): void
    {
        Css::scan($document, $text);
        Script::sourceMap($document, $text);
    }

    /** @return list<BrokenReference> */
    private function ofDocument(string $file, Document $document): array
    {
        $broken = [];
        $known = [];
        $this->ids[$file] = $document->ids;
        foreach ($document->references as $reference) {
            // The same address again is as right or wrong as before.
            $found = $known[$reference->kind->value.$reference->value] ??= $this->judge($file, $document, $reference);
            if ($found instanceof BrokenReference) {
                $broken[] = new BrokenReference(
                    $found->fault,
                    $file,
                    $document->line($reference->offset),
                    $reference,
                    $found->suggestion,
                );
            }
        }

        return $broken;
    }

    private function judge(string $file, Document $document, Reference $reference): BrokenReference|false
    {
        $address = Address::of(
            $reference->value,
            $file,
            $document->base,
            $this->own,
        );
        $fault = match ($address->kind) {
            AddressKind::NoPlace => null,
            AddressKind::Fragment => $this->notePlace(
                $file,
                $address,
                $document,
                $reference,
                $file,
            ),
            AddressKind::LocalFile => Fault::LocalFile,
            AddressKind::PrivateHost => Fault::PrivateHost,
            AddressKind::WithLogin => Fault::WithLogin,
            AddressKind::AboveRoot => Fault::AboveRoot,
            AddressKind::Elsewhere => $address->isPlainHttp && $reference->kind === ReferenceKind::Load
                ? Fault::PlainHttp
                : null,
            AddressKind::Inside => $this->inside(
                $file,
                $address,
                $document,
                $reference,
            ),
        };
        if ($fault === null) {
            return false;
        }
        $path = (string) $address->path;

        return new BrokenReference(
            $fault,
            $file,
            0,
            $reference,
            match ($fault) {
                Fault::WrongCase => $this->names->otherwiseWritten($path),
                Fault::Missing, Fault::AboveRoot => $this->names->nearest($path),
                default => null,
            },
        );
    }

    private function inside(
        string $file,
        Address $address,
        Document $document,
        Reference $reference,
    ): ?Fault {
        $path = (string) $address->path;
        $isFile = $this->names->has($path) && ! $this->names->isDirectory($path);
        if (! $isFile && $reference->how === 'module import' && $this->isForBundler($path)) {
            return null;
        }
        if (! $this->names->has($path)) {
            return $this->names->otherwiseWritten($path) === null ? Fault::Missing : Fault::WrongCase;
        }
        if (! $this->names->isDirectory($path)) {
            // "page.html/" is no file to a server.
            return $address->isDirectory
                ? Fault::Missing
                : $this->notePlace(
                    $path,
                    $address,
                    $document,
                    $reference,
                    $file,
                );
        }
        $start = $this->startPage($path);

        return $start === null ? Fault::Listing : $this->notePlace(
            $start,
            $address,
            $document,
            $reference,
            $file,
        );
    }

    /** A source that is put together before it is served names modules without their ending. */
    private function isForBundler(string $path): bool
    {
        foreach (['.js', '.mjs', '.ts', '/index.js', '/index.ts'] as $ending) {
            if ($this->names->has($path.$ending)) {
                return true;
            }
        }

        return false;
    }

    private function startPage(string $directory): ?string
    {
        foreach (StartPages::USUAL as $name) {
            $path = ltrim("$directory/$name", '/');
            if ($this->names->has($path) && ! $this->names->isDirectory($path)) {
                return $path;
            }
        }

        return null;
    }

    /** Whether the place is there is known once all documents were read. */
    private function notePlace(
        string $target,
        Address $address,
        Document $document,
        Reference $reference,
        string $file,
    ): null {
        // "#" and "#top" lead to the top of every document; text fragments and states of scripts are no places.
        $fragment = $address->fragment;
        $isPlace = $fragment !== null && preg_match('~^(?!top$)[^:/!=&]+$~iD', $fragment) === 1;
        if ($isPlace && preg_match('/\.(?:html?|xhtml|svg)$/iD', $target) === 1) {
            $this->places[] = [$target, $file, $document->line($reference->offset), $reference];
        }

        return null;
    }
}
