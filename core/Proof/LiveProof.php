<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Manifest;
use Cellarium\Core\Plan\ManifestEntry;
use Cellarium\Core\Plan\Plan;

/** Fetches what a deployment changed through the domain and compares it with what was sent, the start page first. */
final readonly class LiveProof
{
    /**
     * @param  list<string>  $startPages  the site's precedence
     * @param  int  $most  addresses fetched at the most; pages come before assets
     * @param  string|null  $hostAddress  IP address to ask where the domain itself does not show the site; for a domain
     *                                    that is known not to lead there yet
     */
    public function __construct(
        private WebFetcher $fetcher,
        private PublicAddress $addresses,
        private RemotePath $documentRoot,
        private array $startPages,
        private int $most = 40,
        private ?string $hostAddress = null,
    ) {
    }

    /** @return list<string> addresses that prove() would fetch */
    public function addresses(Plan $plan, Manifest $after): array
    {
        return array_keys($this->expected($plan, $after));
    }

    /** @return list<PageProof> the start page first */
    public function prove(Plan $plan, Manifest $after): array
    {
        $proofs = [];
        $at = null;
        foreach ($this->expected($plan, $after) as $url => $entry) {
            $proof = $this->page($url, $entry, $at);
            if (! $proof->holds() && $at === null && $this->hostAddress !== null) {
                $direct = $this->page($url, $entry, $this->hostAddress);
                [$proof, $at] = $direct->holds() ? [$direct, $this->hostAddress] : [$proof, null];
            }
            $proofs[] = $proof;
        }

        return $proofs;
    }

    private function page(string $url, ManifestEntry $entry, ?string $at): PageProof
    {
        $answer = $this->fetcher->fetch($url, $at);
        $runs = in_array($entry->path->extension(), ['php', 'phtml', 'cgi', 'shtml'], true);

        return new PageProof($url, $answer->status, $runs ? null : $answer->sha256 === $entry->sha256, $answer->error, $at);
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
            if ($entry !== null && count($expected) < $this->most && ! str_starts_with($entry->path->name(), '.') && $item->change !== Change::Same) {
                $expected[$this->addresses->ofFile($entry->path)] = $entry;
            }
        }

        return $expected;
    }
}
