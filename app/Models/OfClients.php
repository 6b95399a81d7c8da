<?php

declare(strict_types=1);

namespace App\Models;

use Closure;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as Rows;
use Illuminate\Support\Facades\DB;

/**
 * What belongs to clients. For a client's person nothing else exists, in whatever query: lists, counts, finder,
 * relations and what a number in an address leads to. This is the one place that sees to it; rows that are read without
 * a model stand on pages of the agency only.
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

    /** @return Closure(Rows): mixed the numbers of the sites of a client, for whereIn() */
    protected static function sitesOf(int $client): Closure
    {
        return static fn (Rows $rows) => $rows
            ->select('id')
            ->from('sites')
            ->whereNull('removed_at')
            ->where(static fn (Rows $any) => self::siteIsOf($any, $client));
    }

    /** @return Closure(Rows): mixed the numbers of the accounts in which a client has something, for whereIn() */
    protected static function accountsOf(int $client): Closure
    {
        return static fn (Rows $rows) => $rows
            ->select('account_id')
            ->from('sites')
            ->whereNull('removed_at')
            ->where(static fn (Rows $any) => self::siteIsOf($any, $client))
            ->union(DB::table('accounts')->select('id')->where('client_id', $client)->whereNull('removed_at'));
    }

    /** A site is its own client's where it has one, and its account's otherwise. */
    protected static function siteIsOf(Rows $rows, int $client): void
    {
        $rows->where('sites.client_id', $client)->orWhere(
            static fn (Rows $inherits) => $inherits
                ->whereNull('sites.client_id')
                ->whereIn('sites.account_id', DB::table('accounts')->select('id')->where('client_id', $client)),
        );
    }
}
