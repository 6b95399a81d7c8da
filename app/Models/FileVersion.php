<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\File\FileChangeKind;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** One path that was changed by hand: what it held before, which is kept here for a while, and how it was left. */
final class FileVersion extends Model
{
    use OfClients;

    public $timestamps = false;

    protected $dateFormat = 'Y-m-d H:i:s.v';

    protected $guarded = ['id'];

    protected $casts = [
        'kind' => FileChangeKind::class,
        'before' => 'array',
        'after' => 'array',
        'mode_refused' => 'boolean',
        'at' => 'immutable_datetime',
        'held_until' => 'immutable_datetime',
    ];

    public static function hash(RemotePath $path): string
    {
        return hash('sha256', $path->toString());
    }

    /** @return BelongsTo<ChangeByHand, $this> */
    public function change(): BelongsTo
    {
        return $this->belongsTo(ChangeByHand::class, 'change_id');
    }

    public function wasBefore(): ?ManifestEntry
    {
        return $this->before === null ? null : ManifestEntry::fromFields(new JsonFields($this->before));
    }

    public function isAfter(): ?ManifestEntry
    {
        return $this->after === null ? null : ManifestEntry::fromFields(new JsonFields($this->after));
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('file_versions.account_id', self::accountsOf($client));
    }
}
