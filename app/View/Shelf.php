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
            $open = $account->ftpUsers->contains(static fn ($user): bool => ! $user->hasEnded());
            foreach ($account->sites as $site) {
                $jars[] = new Jar($site, $account, $site->bytes === null || ! $account->space_limit ? null : min(1.0, $site->bytes / $account->space_limit), $open);
            }
        }

        return new self($client, $jars);
    }
}
