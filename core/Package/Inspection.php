<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Fit\PackageTraits;
use Cellarium\Core\Package\Type\Recognition;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Reference\References;

/** An inspected package: a manifest without its wrapping folder, contents in the store. */
final readonly class Inspection
{
    /**
     * @param  string  $name  from the file name, without version and ending
     * @param  string|null  $version  from the file name
     * @param  string|null  $wrapper  the folder that was lifted, "site/public" say
     * @param  Manifest  $manifest  as it would land in the document root
     * @param  list<PackageFinding>  $findings  what stops first
     */
    public function __construct(
        public string $name,
        public ?string $version,
        public ?string $wrapper,
        public Manifest $manifest,
        public array $findings,
        public References $references,
        public PackageTraits $traits,
        public ?Recognition $kind = null,
    ) {
    }

    public function startPage(): ?string
    {
        $folder = TypeRules::servedFolder($this->kind?->type);

        return $this->manifest->startPage(StartPages::USUAL, $folder)?->path->toString();
    }

    public function stops(): bool
    {
        return array_filter($this->findings, static fn (PackageFinding $finding): bool => $finding->stops()) !== [];
    }

    /**
     * @return array{
     *     type: string|null,
     *     type_evidence: list<string>,
     *     name: string,
     *     version: string|null,
     *     root_lifted: string|null,
     *     entries: int,
     *     bytes: int,
     *     start_pages: list<array{directory: string, candidates: list<string>, winner: string}>,
     *     findings: list<array<string, string|int|null>>,
     *     served: list<array{address: string, as: string, file: string|null}>,
     * }  documented in docs/findings.md
     */
    public function toArray(): array
    {
        $type = $this->kind?->type;
        $folder = TypeRules::servedFolder($type);
        $fetchable = TypeRules::fetchable($this->manifest, $type);
        $served = $folder === '' ? $fetchable : $fetchable->inside($folder);

        return [
            'type' => $type?->id,
            'type_evidence' => $this->kind->evidence ?? [],
            'name' => $this->name,
            'version' => $this->version,
            'root_lifted' => $this->wrapper,
            'entries' => count($this->manifest->all()),
            'bytes' => $this->manifest->bytes(),
            'start_pages' => VisibleFile::startPages($served),
            'findings' => array_map(
                // Where in the file a mend would change something is of no use to others.
                static fn (PackageFinding $finding): array => array_diff_key($finding->toArray(), ['offset' => 0]),
                $this->findings,
            ),
            'served' => array_map(
                static fn (VisibleFile $one): array => $one->toArray(),
                VisibleFile::all($served, VisibleFile::exposedBy($this->findings, $folder)),
            ),
        ];
    }
}
