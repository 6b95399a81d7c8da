<?php

declare(strict_types=1);

namespace App\Models;

use Cellarium\Core\Deployment\LiveFindings;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Deployment\RunRefusal;
use Cellarium\Core\Deployment\RunStage;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Outage\Outage;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Plan\Answers;
use Cellarium\Core\Plan\Way;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** A plan for one site, waiting, being carried out, or done. */
final class Deployment extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $dateFormat = 'Y-m-d H:i:s.v';

    protected $casts = [
        'state' => DeploymentState::class,
        'kind' => DeploymentKind::class,
        'stage' => RunStage::class,
        'question' => RunRefusal::class,
        'policy' => 'array',
        'paths' => 'array',
        'answers' => 'array',
        'changes_since' => 'array',
        'timings' => 'array',
        'outage' => 'array',
        'counts' => 'array',
        'progress' => 'array',
        'proofs' => 'array',
        'notes' => 'array',
        'found_live' => 'array',
        'touched' => 'array',
        'unproven' => 'array',
        'modes_not_set' => 'array',
        'collapse_accepted' => 'boolean',
        'cancelled_at' => 'immutable_datetime',
        'paused_at' => 'immutable_datetime',
        'decide_until' => 'immutable_datetime',
        'tries_again' => 'boolean',
        'mends' => 'boolean',
        'proof_by' => ProofBy::class,
        'proof_stops' => 'boolean',
        'way' => Way::class,
        'way_chosen' => 'boolean',
        'ways' => 'array',
        'left_behind_at' => 'immutable_datetime',
        'held' => 'boolean',
        'planned_at' => 'immutable_datetime',
        'started_at' => 'immutable_datetime',
        'ended_at' => 'immutable_datetime',
    ];

    protected static function booted(): void
    {
        self::saved(static function (self $deployment): void {
            if ($deployment->state === DeploymentState::Proven && $deployment->wasChanged('state')) {
                Site::where('id', $deployment->site_id)->update(['last_deployment_id' => $deployment->id]);
            }
        });
    }

    /** @return BelongsTo<Site, $this> */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class)->withTrashed();
    }

    /** @return BelongsTo<Package, $this> */
    public function package(): BelongsTo
    {
        return $this->belongsTo(Package::class);
    }

    /** @return BelongsTo<Backup, $this> taken before anything was replaced */
    public function backup(): BelongsTo
    {
        return $this->belongsTo(Backup::class);
    }

    /** @return BelongsTo<Backup, $this> what is brought back */
    public function fromBackup(): BelongsTo
    {
        return $this->belongsTo(Backup::class, 'from_backup_id');
    }

    /** @return BelongsTo<Deployment, $this> */
    public function undoes(): BelongsTo
    {
        return $this->belongsTo(self::class, 'undoes_id');
    }

    /** @return BelongsTo<Deployment, $this> */
    public function waitsFor(): BelongsTo
    {
        return $this->belongsTo(self::class, 'waits_for_id');
    }

    /** @return BelongsTo<Deployment, $this> the one that left what its plan was compared with */
    public function comparedWith(): BelongsTo
    {
        return $this->belongsTo(self::class, 'compared_with_id');
    }

    /** What was said to the questions of its plan. */
    public function answers(): Answers
    {
        return $this->answers === null ? Answers::none() : Answers::fromFields(new JsonFields($this->answers));
    }

    /** For how long visitors found no site while it was replaced; null where that was not measured. */
    public function outage(): ?Outage
    {
        $measured = $this->getAttribute('outage');

        return $measured === null ? null : Outage::fromFields(new JsonFields($measured));
    }

    /** What visitors met beside the bytes; null where they were not asked. */
    public function foundLive(): ?LiveFindings
    {
        $found = $this->getAttribute('found_live');

        return $found === null ? null : LiveFindings::fromFields(new JsonFields($found));
    }

    /** What it is, or will be, proven by. */
    public function provenBy(): ProofBy
    {
        return $this->proof_by ?? ProofBy::usual($this->site);
    }

    /** Whether visitors were never asked for it. */
    public function wasReadBackOnly(): bool
    {
        return $this->state === DeploymentState::Proven
            && $this->proof_by === ProofBy::ReadingBack
            && ($this->proofs ?? []) === [];
    }

    /** How it stands, in a word or two. */
    public function label(): string
    {
        $but = $this->state === DeploymentState::Proven ? $this->foundLive()?->but() : null;

        return match (true) {
            $this->wasReadBackOnly() => 'read back, visitors not asked',
            $but !== null => "live; $but",
            default => $this->state->label(),
        };
    }

    /** The style its label is shown in. */
    public function tone(): string
    {
        $found = $this->state === DeploymentState::Proven ? $this->foundLive() : null;

        return match (true) {
            $found !== null && $found->public() !== [] => 'now',
            $this->wasReadBackOnly(), $found?->but() !== null => 'soon',
            default => $this->state->tone(),
        };
    }

    /** @return BelongsTo<FtpUser, $this> */
    public function ftpUser(): BelongsTo
    {
        return $this->belongsTo(FtpUser::class);
    }

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    public function isGoing(): bool
    {
        return $this->state->isGoing();
    }

    /** Where its paths begin, and where visitors come in. */
    public function runPlace(): RunPlace
    {
        return $this->site->placeFrom(RemotePath::fromString($this->root ?? $this->site->document_root));
    }

    /** The same as the login sees it that this run signs in with; null where that login cannot touch it. */
    public function rootAsSignedIn(): ?RemotePath
    {
        $root = $this->runPlace()->root;

        return $this->ftpUser === null || $this->ftpUser->hasEnded() ? $root : $root->seenFrom($this->ftpUser->path());
    }

    /** The directory in the document root, or mounted below it, that it goes to; null for the document root itself. */
    public function place(): ?RemotePath
    {
        return $this->directory === null ? null : RemotePath::fromString($this->directory);
    }

    /** Whether it brings back what was there before, and no package. */
    public function bringsBack(): bool
    {
        return ! in_array($this->kind, [DeploymentKind::Deploy, DeploymentKind::Files], true);
    }

    /** Whether its plan says what was left by the run before, too. */
    public function hasThreeSides(): bool
    {
        return $this->kind === DeploymentKind::Undo
            ? ($this->policy['asks'] ?? []) !== []
            : ! $this->bringsBack() && $this->comparedWith !== null;
    }

    /** Whether there never was a plan to show. */
    public function hasNoPlan(): bool
    {
        return in_array($this->state, [DeploymentState::Drafting, DeploymentState::NotPlanned], true)
            || ($this->state === DeploymentState::Cancelled && $this->planned_at === null);
    }

    /**
     * What title() is made of, to be loaded with many of them at once.
     *
     * @param  string  $of  the relation that they are loaded by, with a dot at its end
     * @return list<string>
     */
    public static function titled(string $of = ''): array
    {
        return array_map(static fn (string $relation): string => $of.$relation, [
            'package',
            'fromBackup.site',
            'undoes.package',
            'undoes.fromBackup.site',
            'undoes.undoes.package',
            'undoes.undoes.fromBackup.site',
        ]);
    }

    public function title(): string
    {
        return match ($this->kind) {
            DeploymentKind::RestoreBackup => 'Restore '
                .($this->paths === null ? '' : self::few($this->paths).' of ')
                .'the backup of '
                .($this->fromBackup?->site_id === $this->site_id ? '' : "{$this->fromBackup?->site->domain}, ")
                .$this->fromBackup?->verified_at?->shown('j M H:i'),
            DeploymentKind::RestoreFiles => ($this->set_aside_id === null
                ? 'Restore files'
                : 'Restore a file').' set aside on '
                .$this->undoes?->ended_at?->shown('j M H:i'),
            DeploymentKind::Files => 'Files by hand into '.basename((string) $this->directory),
            DeploymentKind::Undo => 'Undo of '.($this->undoes?->title() ?? 'a deployment'),
            default => ($this->package?->title() ?? 'a package')
                .($this->directory === null ? '' : " into $this->directory"),
        };
    }

    /** @param  list<string>  $paths */
    private static function few(array $paths): string
    {
        return count($paths) === 1 ? $paths[0] : count($paths).' chosen';
    }

    /** When it ended, or was planned; "" while it goes on. */
    public function when(): string
    {
        return $this->state === DeploymentState::Planned
            ? 'planned '.$this->planned_at?->shown('j M H:i')
            : (string) $this->ended_at?->shown('j M Y H:i');
    }

    public function seconds(): ?float
    {
        return $this->started_at === null || $this->ended_at === null
            ? null
            : round(abs($this->ended_at->diffInSeconds($this->started_at)), 2);
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('deployments.site_id', self::sitesOf($client));
    }
}
