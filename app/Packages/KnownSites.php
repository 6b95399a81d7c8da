<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Site;
use Cellarium\Core\Package\Fit\ClientSites;

/** The sites in Cellarium by the hosts that lead to them, and whose they are. */
final class KnownSites implements ClientSites
{
    /**
     * With "www." and without it are one.
     *
     * @param  list<string>  $hosts
     * @return array<string, Site> by host, those whose domain or other name it is
     */
    public static function named(array $hosts): array
    {
        $bare = [];
        foreach ($hosts as $host) {
            $bare[(string) preg_replace('/\Awww\./', '', $host)][] = $host;
        }
        if ($bare === []) {
            return [];
        }
        $names = array_map(strval(...), array_keys($bare));
        $sites = Site::query()
            ->with('account:id,client_id')
            ->whereIn('domain', [...$names, ...array_map(static fn (string $name): string => "www.$name", $names)])
            ->orWhereRaw("aliases <> '[]' AND JSON_OVERLAPS(aliases, ?)", [json_encode($names)])
            ->get([
                'id',
                'account_id',
                'client_id',
                'domain',
                'aliases',
            ]);
        $found = [];
        foreach ($sites as $site) {
            foreach ([$site->domain, ...$site->aliases] as $name) {
                foreach ($bare[(string) preg_replace('/\Awww\./', '', (string) $name)] ?? [] as $host) {
                    $found[$host] = $site;
                }
            }
        }

        return $found;
    }

    /** Whose site it is. */
    public static function clientOf(Site $site): int
    {
        return (int) ($site->client_id ?? $site->account->client_id);
    }

    public function clientsOf(array $hosts): array
    {
        return array_map(self::clientOf(...), self::named($hosts));
    }

    public function clientsRunning(string $package): array
    {
        $places = WhereRuns::ofNames([$package])->byName()[$package] ?? [];

        return Site::with('account:id,client_id')
            ->whereIn('id', array_map(static fn (RunningAt $at): int => $at->site, $places))
            ->get(['id', 'account_id', 'client_id'])
            ->map(self::clientOf(...))
            ->unique()
            ->values()
            ->all();
    }
}
