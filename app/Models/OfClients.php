<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;

/**
 * A model whose rows belong to clients. For a client's person nothing else exists, in whatever query: lists, counts,
 * finder, relations and what a number in an address leads to. This is the one place that sees to it; rows that are read
 * without a model stand on pages of the agency only.
 */
trait OfClients
{
    protected static function bootOfClients(): void
    {
        static::addGlobalScope('of-the-client', static function (Builder $query): void {
            $client = Person::clientOfViewer();
            $client === null || static::onlyOf($query, $client);
        });
    }

    /** @param  Builder<static>  $query */
    abstract protected static function onlyOf(Builder $query, int $client): void;

    /** @return list<int> the numbers of the sites of a client, read once a request */
    protected static function sitesOf(int $client): array
    {
        return Person::viewer()?->sitesOf($client) ?? [];
    }

    /** @return list<int> the numbers of the accounts in which a client has something */
    protected static function accountsOf(int $client): array
    {
        return Person::viewer()?->accountsOf($client) ?? [];
    }
}
