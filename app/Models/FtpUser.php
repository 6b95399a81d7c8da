<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\Reach;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\MorphMany;

/** A scoped login inside an account; open only once its reach is proven, closed only once its refusal is. */
final class FtpUser extends Model
{
    public const MADE = 'made';

    public const OPEN = 'open';

    public const CLOSED = 'closed';

    public const CLOSING_FAILED = 'closing_failed';

    protected $guarded = ['id'];

    protected $hidden = ['secret'];

    protected $casts = [
        'secret' => 'encrypted',
        'closes_at' => 'immutable_datetime',
        'reach_proven_at' => 'immutable_datetime',
        'closed_at' => 'immutable_datetime',
        'refusal_proven_at' => 'immutable_datetime',
        'handed_over_at' => 'immutable_datetime',
    ];

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class);
    }

    /** @return MorphMany<Proof, $this> */
    public function proofs(): MorphMany
    {
        return $this->morphMany(Proof::class, 'subject');
    }

    public function path(): RemotePath
    {
        return RemotePath::fromString($this->directory);
    }

    public function reach(): Reach
    {
        return Reach::of($this->path(), $this->account->documentRoots());
    }

    public function isClosed(): bool
    {
        return $this->state === self::CLOSED;
    }

    public function isOverdue(): bool
    {
        return ! $this->isClosed() && $this->closes_at !== null && $this->closes_at->isPast();
    }

    public function shortLogin(): string
    {
        return explode('@', $this->login)[0];
    }
}
