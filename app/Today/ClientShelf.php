<?php

declare(strict_types=1);

namespace App\Today;

use App\Models\Client;

/** One client's shelf with its jars. */
final readonly class ClientShelf
{
    /** @param  list<SiteSummary>  $jars */
    private function __construct(
        public Client $client,
        public array $jars,
    ) {
    }

    public static function forClient(Client $client): self
    {
        $jars = [];
        foreach ($client->accounts as $account) {
            $open = $account->ftpUsers->contains(static fn ($user): bool => ! $user->hasEnded());
            foreach ($account->sites as $site) {
                $jars[] = new SiteSummary(
                    $site,
                    $account,
                    $site->bytes === null || ! $account->space_limit
                        ? null
                        : min(1.0, $site->bytes / $account->space_limit),
                    $open,
                );
            }
        }

        return new self($client, $jars);
    }

    /**
     * Two letters for each jar of a shelf that tell it from the others: the first of its domain where those differ,
     * else
     * those from where domains that begin alike part ways ("north.thrift", "south.thrift": "no", "so").
     *
     * @return list<string> in the order of the jars
     */
    public function labels(): array
    {
        $labels = array_map(static fn (SiteSummary $jar): string => $jar->site->initials(), $this->jars);
        foreach (array_count_values($labels) as $label => $count) {
            if ($count < 2) {
                continue;
            }
            $alike = array_keys($labels, (string) $label, true);
            $domains = array_map(fn (int $index): string => $this->jars[$index]->site->domain, $alike);
            $seen = [];
            foreach (self::apart($domains) as $number => $letters) {
                // What still is the same is numbered.
                $again = $seen[$letters] = ($seen[$letters] ?? 0) + 1;
                $labels[$alike[$number]] = $again === 1 ? $letters : mb_substr($letters, 0, 1).$again;
            }
        }

        return $labels;
    }

    /**
     * @param  list<string>  $domains
     * @return list<string>
     */
    private static function apart(array $domains): array
    {
        $sorted = $domains;
        sort($sorted);
        [$first, $last] = [$sorted[0], $sorted[count($sorted) - 1]];
        $same = 0;
        while ($same < min(strlen($first), strlen($last)) && $first[$same] === $last[$same]) {
            $same++;
        }

        return array_map(static function (string $domain) use ($same): string {
            $rest = (string) preg_replace('/[^\p{L}\p{N}]/u', '', mb_strcut($domain, $same));

            return mb_substr($rest === '' ? $domain : $rest, 0, 2);
        }, $domains);
    }
}
