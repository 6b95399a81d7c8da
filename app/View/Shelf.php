<?php

declare(strict_types=1);

namespace App\View;

use App\Models\Client;

/** One client's shelf with its jars. */
final readonly class Shelf
{
    /** @param  list<Jar>  $jars */
    private function __construct(
        public Client $client,
        public array $jars,
    ) {
    }

    public static function of(Client $client): self
    {
        $jars = [];
        foreach ($client->accounts as $account) {
            $open = $account->ftpUsers->contains(static fn ($user): bool => ! $user->isClosed());
            $most = max(1, $account->space_limit ?? 1);
            foreach ($account->sites as $site) {
                $jars[] = new Jar($site, $account, $site->bytes === null ? null : min(1.0, $site->bytes / $most), $open);
            }
        }

        return new self($client, $jars);
    }
}
