<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A token that a build pipeline signs in with, for a person; what is stored here opens nothing without the token. */
final class ApiToken extends Model
{
    use OfPerson;

    protected $guarded = ['id'];

    protected $hidden = ['sha256'];

    protected $casts = [
        'scope' => TokenScope::class,
        'expires_at' => 'immutable_datetime',
        'used_at' => 'immutable_datetime',
        'revoked_at' => 'immutable_datetime',
    ];

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    /** @param  Builder<self>  $query  those that still let somebody in */
    public function scopeWorking(Builder $query): void
    {
        $query->whereNull('revoked_at')->where(
            static fn (Builder $either) => $either->whereNull('expires_at')->orWhere('expires_at', '>', now()),
        );
    }

    public function works(): bool
    {
        return $this->revoked_at === null && ($this->expires_at === null || $this->expires_at->isFuture());
    }

    /** The line for a pipeline; its secret comes from where the pipeline keeps those. */
    public function curl(): string
    {
        $file = ($this->package_name ?? 'site').'-$VERSION.zip';

        return "curl --fail-with-body -H \"Authorization: Bearer \$CELLARIUM_TOKEN\" \\\n"
            ."    -F \"package=@$file\" ".url($this->scope->path());
    }

    /** How it stands, in a word or two. */
    public function words(): string
    {
        return match (true) {
            $this->revoked_at !== null => "revoked {$this->revoked_at->shown('j M Y')}",
            ! $this->works() => "ran out {$this->expires_at?->shown('j M Y')}",
            $this->expires_at === null => 'until it is revoked',
            default => "until {$this->expires_at->shown('j M Y')}",
        };
    }
}
