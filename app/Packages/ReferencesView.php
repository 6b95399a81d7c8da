<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Drawing\DrawnNode;
use Cellarium\Core\Package\Drawing\NodeKind;
use Cellarium\Core\Package\Drawing\ReferenceDrawing;
use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Reference\Links;
use Cellarium\Core\Words\Count;

/** The references in a package: the drawing, and one file's own references beside it. */
final readonly class ReferencesView
{
    /** So many of each side are shown. */
    private const MOST = 40;

    public ReferencePicture $picture;

    private Links $links;

    /** @var list<PackageFinding> */
    private array $findings;

    /**
     * @param  Manifest  $contents  what visitors can fetch of it
     * @param  string  $folder  that is the root of the site, "" is the top
     * @param  string  $open  the directory that is opened, "" is the top
     * @param  string  $file  whose own references are shown, "" for none
     */
    public function __construct(
        public Package $package,
        Manifest $contents,
        string $folder,
        public string $open,
        public string $file,
    ) {
        $this->links = $package->links();
        $this->findings = $package->notes();
        $this->picture = new ReferencePicture(ReferenceDrawing::fromLinks(
            $contents,
            $this->links,
            $this->findings,
            $open,
            $folder,
        ), $open);
    }

    public function isEmpty(): bool
    {
        return $this->links->to === [];
    }

    public function isChosen(DrawnNode $node): bool
    {
        return $node->kind === NodeKind::File && $node->path === $this->file;
    }

    /** Where one comes to by a place of the drawing. */
    public function address(DrawnNode $node): ?string
    {
        return match ($node->kind) {
            NodeKind::File => $this->to($this->open, $node->path),
            NodeKind::Directory => $this->to($node->path, ''),
            default => null,
        };
    }

    public function to(string $open, string $file): string
    {
        $query = http_build_query(array_filter(
            ['in' => $open, 'file' => $file],
            static fn (string $value): bool => $value !== '',
        ));

        return "/packages/{$this->package->id}/references".($query === '' ? '' : "?$query");
    }

    /** @return array<string, string> the directory by its address, from the top to the one that is opened */
    public function trail(): array
    {
        $trail = [];
        for ($at = $this->open; $at !== '' && $at !== '.'; $at = dirname($at)) {
            $trail[$this->to($at, '')] = basename($at);
        }

        return array_reverse($trail);
    }

    /** @return array<string, int> the files it refers to, and how often */
    public function refersTo(): array
    {
        return array_slice($this->links->to[$this->file] ?? [], 0, self::MOST);
    }

    /** @return array<string, int> */
    public function referredFrom(): array
    {
        return array_slice($this->links->from($this->file), 0, self::MOST);
    }

    /** @return list<PackageFinding> broken ones in that file */
    public function broken(): array
    {
        return array_slice(array_values(array_filter(
            $this->findings,
            fn (PackageFinding $one): bool => $one->path === $this->file && $one->code->isOfReference(),
        )), 0, self::MOST);
    }

    /** Below the drawing, in a sentence: what has no use and what is large. */
    public function remarks(): string
    {
        $unused = array_filter(
            $this->findings,
            static fn (PackageFinding $one): bool => $one->code === FindingCode::FileUnused,
        );
        $apart = array_filter($this->picture->drawing->nodes, static fn (DrawnNode $node): bool => ! $node->isReached);

        return implode(' ', array_filter([
            $apart === [] ? '' : 'Right of the line stands what nobody comes to from the start page.',
            $unused === [] ? '' : Count::words(count($unused), 'has', 'have')
                .' no reference at all; the notes name '.Count::choose(count($unused), 'it.', 'them.'),
        ]));
    }
}
