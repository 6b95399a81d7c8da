<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Plan;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Web\WebFetcher;

/** Fetches what a deployment changed through the domain and compares it with what was sent, the start page first. */
final readonly class LiveProof
{
    /**
     * @param  list<string>  $startPages  the site's precedence
     * @param  float  $share  of the addresses that are fetched, above 0 to 1; pages come before assets
     * @param  string|null  $hostAddress  IP address to ask where the domain itself does not show the site; for a domain
     *                                    that is known not to lead there yet
     */
    public function __construct(
        private WebFetcher $fetcher,
        private PublicAddress $addresses,
        private RemotePath $documentRoot,
        private array $startPages,
        private float $share = 1.0,
        private ?string $hostAddress = null,
    ) {
    }

    /** How many addresses a deployment could be proven by. */
    public function count(Plan $plan, Manifest $after): int
    {
        return count($this->expected($plan, $after));
    }

    /** @return list<PageProof> the start page first; of the share that is set */
    public function prove(Plan $plan, Manifest $after): array
    {
        return $this->fetchAll($this->shareOf($this->expected($plan, $after)), []);
    }

    /**
     * The other way round: whether the addresses that a plan changed show what was there before it.
     *
     * @param  Manifest  $before  hashes known
     * @return list<PageProof> an address the plan added holds unless it still shows what was added
     */
    public function proveBack(Plan $plan, Manifest $before): array
    {
        $expected = [];
        $gone = [];
        $start = $before->startPage($this->startPages);
        if ($start !== null && $start->sha256 !== null) {
            $expected[(string) $this->addresses->of($this->documentRoot)] = $start;
        }
        foreach ($plan->files(Change::Replace, Change::SetAside, Change::Add) as $item) {
            $old = $before->get($item->path);
            $entry = $old ?? $item->target;
            if ($entry === null || $entry->sha256 === null || self::isHidden($entry)) {
                continue;
            }
            $url = $this->addresses->ofFile($item->path);
            $expected[$url] = $entry;
            $old === null && ! self::runs($entry) && $gone[$url] = true;
            if ($old === null && self::runs($entry)) {
                unset($expected[$url]); // What a program says that is gone cannot be known.
            }
        }
        if ($start === null && $gone !== []) {
            $new = $this->newStart($plan);
            $new === null
            ?: ([
                $expected[(string) $this->addresses->of($this->documentRoot)],
                $gone[(string) $this->addresses->of($this->documentRoot)],
            ] = [$new, true]);
        }

        return $this->fetchAll($this->shareOf($expected), $gone);
    }

    /**
     * Whether the bytes behind an address are what the server holds, and not what it made of them or keeps to itself.
     */
    public static function isComparable(ManifestEntry $entry): bool
    {
        return ! self::isHidden($entry) && ! self::runs($entry);
    }

    private static function runs(ManifestEntry $entry): bool
    {
        return in_array($entry->path->extension(), ['php', 'phtml', 'cgi', 'shtml'], true);
    }

    /** Servers keep files whose names begin with a dot to themselves. */
    private static function isHidden(ManifestEntry $entry): bool
    {
        return str_starts_with($entry->path->name(), '.');
    }

    private function newStart(Plan $plan): ?ManifestEntry
    {
        $added = Manifest::of(
            array_filter(
                array_map(static fn (PlanItem $item): ?ManifestEntry => $item->target, $plan->files(Change::Add)),
            ),
        );
        $start = $added->startPage($this->startPages);

        return $start === null || self::runs($start) ? null : $start;
    }

    /**
     * @param  array<string, ManifestEntry>  $expected
     * @return array<string, ManifestEntry>
     */
    private function shareOf(array $expected): array
    {
        return array_slice(
            $expected,
            0,
            (int) ceil(count($expected) * min(1.0, $this->share)),
            true,
        );
    }

    /**
     * @param  array<string, ManifestEntry>  $expected  by address
     * @param  array<string, true>  $gone  addresses that must not show it
     * @return list<PageProof>
     */
    private function fetchAll(array $expected, array $gone): array
    {
        $proofs = [];
        $at = null;
        foreach ($expected as $url => $entry) {
            $proof = $this->page(
                $url,
                $entry,
                $at,
                isset($gone[$url]),
            );
            if (! $proof->holds() && $at === null && $this->hostAddress !== null) {
                $direct = $this->page(
                    $url,
                    $entry,
                    $this->hostAddress,
                    isset($gone[$url]),
                );
                [$proof, $at] = $direct->holds() ? [$direct, $this->hostAddress] : [$proof, null];
            }
            $proofs[] = $proof;
        }

        return $proofs;
    }

    private function page(
        string $url,
        ManifestEntry $entry,
        ?string $at,
        bool $gone,
    ): PageProof {
        $answer = $this->fetcher->fetch($url, $at);
        if ($gone) {
            return PageProof::ofGone(
                $url,
                $answer->status,
                $answer->sha256 === $entry->sha256,
                $answer->error,
                $at,
            );
        }

        return new PageProof(
            $url,
            $answer->status,
            self::runs($entry) ? null : $answer->sha256 === $entry->sha256,
            $answer->error,
            $at,
        );
    }

    /** @return array<string, ManifestEntry> by address */
    private function expected(Plan $plan, Manifest $after): array
    {
        $expected = [];
        $start = $after->startPage($this->startPages);
        if ($start !== null && $start->sha256 !== null) {
            $expected[(string) $this->addresses->of($this->documentRoot)] = $start;
        }
        $waves = $plan->waves($this->startPages);
        foreach ([...$waves['start'], ...$waves['pages'], ...$waves['assets']] as $item) {
            $entry = $item->target;
            if ($entry !== null && ! self::isHidden($entry) && $item->change !== Change::Same) {
                $expected[$this->addresses->ofFile($entry->path)] = $entry;
            }
        }

        return $expected;
    }
}
