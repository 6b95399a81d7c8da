<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\File\FileChange;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\ManifestEntry;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/** A change to files of an account by hand: its steps, and what became of each. */
final class ChangeByHand extends Model
{
    use OfClients;

    protected $table = 'changes_by_hand';

    protected $guarded = ['id'];

    protected $attributes = [
        'steps' => null,
        'refers' => null,
        'held' => null,
        'done' => 0,
        'trouble' => null,
        'proof' => null,
        'undoes_id' => null,
        'started_at' => null,
        'ended_at' => null,
        'undone_at' => null,
    ];

    protected $casts = [
        'action' => FileAction::class,
        'state' => ChangeState::class,
        'asked' => 'array',
        'steps' => 'array',
        'refers' => 'array',
        'held' => 'array',
        'proof' => 'array',
        'started_at' => 'immutable_datetime',
        'ended_at' => 'immutable_datetime',
        'undone_at' => 'immutable_datetime',
    ];

    /** @return BelongsTo<Account, $this> */
    public function account(): BelongsTo
    {
        return $this->belongsTo(Account::class)->withTrashed();
    }

    /** @return BelongsTo<Site, $this> in whose files it was asked for; null for those of the account */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class)->withTrashed();
    }

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    /** @return list<FileChange> in their order */
    public function steps(): array
    {
        return array_map(
            static fn (array $step): FileChange => FileChange::fromFields(new JsonFields($step)),
            $this->getAttribute('steps') ?? [],
        );
    }

    /** @return HasMany<FileVersion, $this> what its steps have done, in their order */
    public function versions(): HasMany
    {
        return $this->hasMany(FileVersion::class, 'change_id')->orderBy('step');
    }

    /** What lay there as the step that goes on began to touch it; null where that was not noted. */
    public function heldNow(): ?ManifestEntry
    {
        $held = $this->held['before'] ?? null;

        return $this->isTouching() && is_array($held)
            ? ManifestEntry::fromFields(new JsonFields($held))
            : null;
    }

    /** Whether the step that goes on may have touched something; before that it is written down what lay there. */
    public function isTouching(): bool
    {
        return ($this->held['step'] ?? null) === $this->done;
    }

    public function canUndo(): bool
    {
        return $this->done > 0 && $this->undone_at === null && $this->state->hasEnded()
            && $this->state !== ChangeState::Unclear;
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('changes_by_hand.site_id', self::sitesOf($client));
    }
}
