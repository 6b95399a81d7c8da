<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A text that somebody has open: what they opened, and what they have made of it, encrypted, until it is saved. */
final class FileDraft extends Model
{
    use OfClients;
    use OfPerson;

    protected $guarded = ['id'];

    protected $hidden = ['text'];

    protected $attributes = [
        'base_sha256' => null,
        'seen' => null,
        'text' => null,
        'merged' => null,
        'typed_at' => null,
    ];

    protected $casts = [
        'seen' => 'array',
        'text' => 'encrypted',
        'merged' => 'array',
        'opened_at' => 'immutable_datetime',
        'here_at' => 'immutable_datetime',
        'typed_at' => 'immutable_datetime',
    ];

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class)->withTrashed();
    }

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    public function path(): RemotePath
    {
        return RemotePath::fromString($this->path);
    }

    /** The file as it was opened, with its hash. */
    public function seen(): ?ManifestEntry
    {
        return $this->seen === null
            ? null
            : ManifestEntry::fromFields(new JsonFields($this->seen))->withSha256($this->base_sha256);
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('file_drafts.account_id', self::accountsOf($client));
    }
}
