<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Sheet\SignedSheet;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** A sheet that was made for a client, as it was signed. */
final class Sheet extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $casts = ['covers_from' => 'immutable_datetime', 'covers_until' => 'immutable_datetime'];

    /**
     * Without the file itself, of which lists show nothing.
     *
     * @return Builder<self>
     */
    public static function listed(): Builder
    {
        return self::query()->select([
            'id',
            'client_id',
            'site_id',
            'deployment_id',
            'person_id',
            'covers_from',
            'covers_until',
            'created_at',
        ]);
    }

    /** @return BelongsTo<Client, $this> */
    public function client(): BelongsTo
    {
        return $this->belongsTo(Client::class)->withTrashed();
    }

    /** @return BelongsTo<Site, $this> null for all sites of the client */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class)->withTrashed();
    }

    /** @return BelongsTo<Deployment, $this> null for all that happened in its time */
    public function deployment(): BelongsTo
    {
        return $this->belongsTo(Deployment::class);
    }

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    /** @return HasMany<SheetLink, $this> */
    public function links(): HasMany
    {
        return $this->hasMany(SheetLink::class)->latest('id');
    }

    public function signed(): SignedSheet
    {
        return SignedSheet::fromJson((string) $this->getAttribute('signed'));
    }

    /** What it is about, in words. */
    public function about(): string
    {
        return $this->deployment_id !== null
            ? "deployment $this->deployment_id, ".$this->site?->domain
            : ($this->site === null ? 'all sites' : $this->site->domain)
                .", {$this->covers_from->shown('j M Y')} to {$this->covers_until->shown('j M Y')}";
    }

    /** The name of a file that holds it, without an ending. */
    public function fileName(): string
    {
        return "sheet-$this->id-".$this->created_at?->format('Y-m-d');
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->where('sheets.client_id', $client);
    }
}
