<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Package\Finding\ClientFindings;
use Cellarium\Core\Package\Finding\LayoutFindings;
use Cellarium\Core\Package\Finding\Mentions;
use Cellarium\Core\Package\Finding\NameFindings;
use Cellarium\Core\Package\Finding\PackageFinding;
use Cellarium\Core\Package\Finding\ProgramFindings;
use Cellarium\Core\Package\Finding\ReferenceFindings;
use Cellarium\Core\Package\Finding\SecretCheck;
use Cellarium\Core\Package\Finding\Severity;
use Cellarium\Core\Package\Finding\UnfinishedCheck;
use Cellarium\Core\Package\Finding\UseFindings;
use Cellarium\Core\Package\Fit\ClientSites;
use Cellarium\Core\Package\Fit\TraitCheck;
use Cellarium\Core\Package\Type\PackageTypes;
use Cellarium\Core\Package\Type\Recognition;
use Cellarium\Core\Package\Type\TypeRules;
use Cellarium\Core\Reference\Documents;
use Cellarium\Core\Reference\ReferenceCheck;
use Cellarium\Core\Reference\References;
use Cellarium\Core\Reference\Resolver;

/** Looks through a package as it would land. One text is held at a time, however many there are. */
final readonly class Inspector
{
    /** Texts that hold no references, but maybe secrets and names of files. */
    private const TEXT = '/\.(?:txt|md|json|xml|ya?ml|toml|ini|conf|cfg|env|sh|log|pem|key|ppk|htaccess)\z'
        .'|(?:\A|\/)(?:\.env(?:\.[\w-]+)?|id_(?:rsa|dsa|ecdsa|ed25519)|\.npmrc|\.netrc|\.htpasswd)\z/i';

    /** Of these, in bytes; what is longer is data. */
    private const LONGEST_TEXT = 1_000_000;

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
        $mentions = new Mentions($fetchable);
        $checks = [new SecretCheck, new UnfinishedCheck($this->today)];
        $traits = new TraitCheck;
        $references = new ReferenceCheck(new Resolver($fetchable, folder: $folder));
        foreach ($fetchable->files() as $entry) {
            $path = $entry->path->toString();
            $isDocument = Documents::isOne($path, $entry->size);
            if (! $isDocument && ($entry->size > self::LONGEST_TEXT || preg_match(self::TEXT, $path) !== 1)) {
                continue;
            }
            $text = $this->contents->text($entry);
            $document = $isDocument ? Documents::read($path, $text) : null;
            $document === null || $references->add($path, $document);
            $mentions->note($entry->path->name(), $text);
            $traits->look($entry, $text, $document);
            foreach ($checks as $check) {
                $check->look($entry, $text, $document);
            }
        }
        $found = $references->finish();
        $name = ($origin->isSaid ? null : $kind?->name) ?? $origin->name;
        $says = $traits->traits(array_map(static fn (array $host): int => $host[0], $found->hosts));

        return new Inspection(
            $name,
            ($origin->isSaid ? null : $kind?->version) ?? $origin->version,
            $origin->wrapper,
            $manifest,
            self::worstFirst(self::news([
                ...LayoutFindings::of(
                    $manifest,
                    $origin->wrapper,
                    $origin->left,
                    $kind?->type,
                ),
                ...NameFindings::of($fetchable),
                ...(new ProgramFindings($this->contents, $found))->of(
                    $fetchable,
                    $origin->modes,
                    $kind?->type,
                ),
                ...array_merge(...array_map(static fn ($check): array => $check->findings(), $checks)),
                ...ReferenceFindings::of($fetchable, $found, $folder),
                ...(new ClientFindings($this->sites))->of($name, $found, $says),
                ...(new UseFindings(
                    $fetchable,
                    $this->contents,
                    $found,
                    $mentions,
                    $folder,
                ))->all(),
            ], $before)),
            $found,
            $says,
            $kind,
        );
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
