<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Path\RemotePath;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/** The last listing of a directory of an account, or the reason it could not be had. */
final class DirectoryListing extends Model
{
    use OfClients;

    protected $dateFormat = 'Y-m-d H:i:s.v';

    protected $guarded = ['id'];

    protected $attributes = [
        'looked_at' => null,
        'entries' => null,
        'answers' => null,
        'trouble' => null,
    ];

    protected $casts = ['looked_at' => 'immutable_datetime', 'answers' => 'array'];

    public static function forPath(Account $account, RemotePath $path): ?self
    {
        return self::where(['account_id' => $account->id, 'path_hash' => FileVersion::hash($path)])->first();
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('directory_listings.account_id', self::accountsOf($client));
    }
}
