<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\Leftovers;
use Cellarium\Core\Package\Contents\PackageContents;
use Cellarium\Core\Package\Contents\UploadPlace;
use Cellarium\Core\Package\Finding\ClientFindings;
use Cellarium\Core\Package\Finding\FindingCode;
use Cellarium\Core\Package\Finding\LayoutFindings;
use Cellarium\Core\Package\Finding\NameFindings;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Finding\ProgramFindings;
use Cellarium\Core\Package\Finding\ReferenceFindings;
use Cellarium\Core\Package\Finding\Severity;
use Cellarium\Core\Package\Finding\UploadFindings;
use Cellarium\Core\Package\Finding\UseFindings;
use Cellarium\Core\Package\Fit\ClientSites;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Recognition;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Reference\References;
use Cellarium\Core\Reference\Resolver;

/** Looks through a package as it would land. One text is held at a time, however many there are. */
final readonly class Inspector
{
    /**
     * @param  string  $today  as YYYY-MM-DD
     * @param  PackageTypes|null  $types  null where kinds of packages do not matter
     * @param  ClientSites|null  $sites  null where it does not matter whose sites are named
     */
    public function __construct(
        private PackageContents $contents,
        private string $today,
        private ?PackageTypes $types = null,
        private ?ClientSites $sites = null,
    ) {
    }

    /**
     * @param  PackageOrigin  $origin  what is known besides its files
     * @param  list<PackageFinding>  $before  of its last version; what is unfinished there is no news here
     * @param  string|null  $said  the id of its type, where somebody has said it
     */
    public function inspect(
        Manifest $manifest,
        PackageOrigin $origin,
        array $before = [],
        ?string $said = null,
    ): Inspection {
        $kind = $this->kind($manifest, $said);
        $folder = TypeRules::servedFolder($kind?->type);
        // What never leaves, or lies where no visitor comes, is nobody's trouble.
        $fetchable = TypeRules::fetchable($manifest, $kind?->type);
        $texts = new TextChecks($this->contents, $fetchable, new Resolver($fetchable, folder: $folder), $this->today);
        $found = $texts->references;
        $name = ($origin->isSaid ? null : $kind?->name) ?? $origin->name;

        return new Inspection(
            $name,
            ($origin->isSaid ? null : $kind?->version) ?? $origin->version,
            $origin->wrapper,
            $manifest,
            self::worstFirst(self::news([
                ...LayoutFindings::find($manifest, $origin->wrapper, $origin->left, $kind?->type),
                ...NameFindings::find($fetchable),
                ...(new ProgramFindings($this->contents, $found))->of($fetchable, $origin->modes, $kind?->type),
                ...$texts->findings,
                ...ReferenceFindings::find($fetchable, $found, $folder),
                ...(new ClientFindings($this->sites))->of($name, $found, $texts->traits),
                ...(new UseFindings($fetchable, $this->contents, $found, $texts->mentions, $folder))->all(),
            ], $before)),
            $found,
            $texts->traits,
            $kind,
        );
    }

    /**
     * Files that come by hand, by the rules of a package where visitors would get them; references lead to what the
     * server will hold. Those of a whole site count where a whole one comes, and stop nothing: there is one already.
     *
     * @param  Manifest  $brought  paths from where the site begins
     * @return list<PackageFinding> what stops first; each that stops names the file or folder that does not go
     */
    public function upload(Manifest $brought, UploadPlace $place): array
    {
        $isServed = static fn (ManifestEntry $entry): bool => $place->isServed($entry->path);
        $isLeft = static fn (ManifestEntry $entry): bool => Leftovers::within($entry->path) !== null;
        $public = array_filter($brought->all(), $isServed);
        $served = Manifest::fromEntries(
            array_filter($public, static fn (ManifestEntry $entry): bool => ! $isLeft($entry)),
        );
        $there = $place->server->with($served->all());
        $texts = new TextChecks($this->contents, $served, new Resolver($there, folder: $place->served), $this->today);
        $found = $texts->references;
        $uses = new UseFindings($served, $this->contents, $found, $texts->mentions, $place->served);
        $isWhole = $place->isWhole($brought);
        $findings = [
            ...$isWhole ? LayoutFindings::find($place->inside($there), null, []) : [],
            ...NameFindings::find($served),
            ...array_filter(
                (new ProgramFindings($this->contents, $found))->of($served, []),
                static fn (PackageFinding $one): bool => $one->code !== FindingCode::ServerScript
                    || ! $place->hasProgram($brought),
            ),
            ...$texts->findings,
            ...ReferenceFindings::find($there, $found, $place->served, 'on the server'),
            ...(new ClientFindings($this->sites))->of('', $found, $texts->traits),
            ...$isWhole ? $uses->all() : $uses->ofAPart(),
            ...(new UploadFindings($this->contents))->encodings($served, $place),
        ];

        return self::worstFirst([
            ...UploadFindings::tooLong($brought),
            ...UploadFindings::leftovers(Manifest::fromEntries($public)),
            ...array_map(self::ofAPart(...), $findings),
        ]);
    }

    /** Secrets stop as ever; what is wrong with a page or with the whole is told, and the page goes. */
    private static function ofAPart(PackageFinding $finding): PackageFinding
    {
        return $finding->stops() && ! $finding->code->isOfSecret() ? $finding->as(Severity::Warn) : $finding;
    }

    private function kind(Manifest $manifest, ?string $said): ?Recognition
    {
        if ($this->types === null) {
            return null;
        }
        $type = $said === null ? null : $this->types->get($said);

        return $type === null
            ? $this->types->recognise($manifest, $this->contents->head(...))
            : $this->types->said($type, $manifest, $this->contents->head(...));
    }

    /**
     * @param  list<PackageFinding>  $findings
     * @param  list<PackageFinding>  $before
     * @return list<PackageFinding>
     */
    private static function news(array $findings, array $before): array
    {
        $known = [];
        foreach ($before as $finding) {
            $known[$finding->sameAsBefore()] = true;
        }

        return array_map(
            static fn (PackageFinding $one): PackageFinding => $one->code->isNoNewsAgain()
                && isset($known[$one->sameAsBefore()]) ? $one->as(Severity::Note) : $one,
            $findings,
        );
    }

    /**
     * @param  list<PackageFinding>  $findings
     * @return list<PackageFinding>
     */
    private static function worstFirst(array $findings): array
    {
        $order = [Severity::Stop, Severity::Warn, Severity::Note];
        usort(
            $findings,
            static fn (PackageFinding $a, PackageFinding $b): int => array_search($a->severity, $order, true)
                <=> array_search($b->severity, $order, true),
        );

        return $findings;
    }
}
