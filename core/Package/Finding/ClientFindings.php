<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Package\Fit\ClientSites;
use Cellarium\Core\Package\Fit\PackageTraits;
use Cellarium\Core\Reference\References;

/**
 * Sites of other clients that a package names: left over from what it was made after, or meant.
 *
 * Whose it is follows from where it is live, else from what it names as its own, else from what it names most; where
 * two are named as often, it is nobody's and all are told.
 */
final readonly class ClientFindings
{
    /** Hosts that are asked about, those named most often. */
    private const MOST_HOSTS = 2000;

    public function __construct(private ?ClientSites $sites)
    {
    }

    /** @return list<PackageFinding> one for each host, where it is named first */
    public function of(string $package, References $references, PackageTraits $traits): array
    {
        $hosts = $references->hosts;
        uasort($hosts, static fn (array $a, array $b): int => $b[0] <=> $a[0]);
        $hosts = array_slice($hosts, 0, self::MOST_HOSTS, true);
        if ($this->sites === null || $hosts === []) {
            return [];
        }
        $clients = $this->sites->clientsOf(array_map(strval(...), array_keys($hosts + $traits->own)));
        $own = self::firstThatSays(
            fn (): array => $this->sites->clientsRunning($package),
            static fn (): array => self::most($traits->own, $clients),
            static fn (): array => self::most(array_map(static fn (array $at): int => $at[0], $hosts), $clients),
        );
        $findings = [];
        foreach (array_intersect_key(array_diff($clients, $own), $hosts) as $host => $client) {
            [, $file, $line] = $hosts[$host];
            $findings[] = new PackageFinding(
                FindingCode::ClientOther,
                Severity::Warn,
                "names $host, the site of another client.",
                $file,
                $line,
            );
        }

        return $findings;
    }

    /**
     * @param  \Closure(): list<int>  ...$ways
     * @return list<int>
     */
    private static function firstThatSays(\Closure ...$ways): array
    {
        foreach ($ways as $way) {
            $clients = $way();
            if ($clients !== []) {
                return $clients;
            }
        }

        return [];
    }

    /**
     * @param  array<string, int>  $times  by host
     * @param  array<string, int>  $clients  by host
     * @return list<int> the client of the hosts that are named most often; none where two are
     */
    private static function most(array $times, array $clients): array
    {
        $byClient = [];
        foreach ($times as $host => $count) {
            $client = $clients[$host] ?? null;
            $client === null || $byClient[$client] = ($byClient[$client] ?? 0) + $count;
        }
        $most = $byClient === [] ? [] : array_keys($byClient, max($byClient), true);

        return count($most) === 1 ? $most : [];
    }
}
