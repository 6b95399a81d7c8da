<?php

declare(strict_types=1);

namespace App\Models;

use App\Text\Amount;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/** The contents of a document root at one moment, or another directory of a site that was replaced as a whole. */
final class Backup extends Model
{
    use OfClients;

    protected $guarded = ['id'];

    protected $casts = [
        'state' => BackupState::class,
        'reason' => BackupReason::class,
        'verified_at' => 'immutable_datetime',
        'taken_over_since' => 'immutable_datetime',
        'started_at' => 'immutable_datetime',
        'cancelled_at' => 'immutable_datetime',
        'collapse_accepted' => 'boolean',
        'changed_meanwhile' => 'array',
        'skipped' => 'array',
        'databases' => 'array',
        'drift' => 'array',
        'pinned_at' => 'immutable_datetime',
        'rehearsed_at' => 'immutable_datetime',
        'rehearsal' => 'array',
        'progress' => 'array',
    ];

    protected static function booted(): void
    {
        // Kept with the site: looking for the newest of hundreds, for thousands of sites, is what pages cannot wait
        // for.
        self::saved(static function (self $backup): void {
            if ($backup->state === BackupState::Verified && $backup->verified_at !== null) {
                Site::where('id', $backup->site_id)
                    ->where('application_root', $backup->root) // One of a mounted directory is none of the site.
                    ->where(
                        static fn ($query) => $query
                            ->whereNull('last_backup_at')
                            ->orWhere('last_backup_at', '<', $backup->verified_at),
                    )
                    ->update(['last_backup_at' => $backup->verified_at]);
                BackupRule::promise($backup->site_id);
            }
        });
    }

    /** Where its paths begin. */
    public function rootPath(): RemotePath
    {
        return RemotePath::fromString($this->root ?? $this->site->document_root);
    }

    /** What it holds, in words; "" before it is taken. */
    public function holds(): string
    {
        return $this->state === BackupState::Verified
            ? Amount::files($this->files).', '.Amount::bytes($this->bytes)
            : '';
    }

    /** How it stands, in a few words: "copy read back, but for 1 name". */
    public function stands(): string
    {
        $skipped = count($this->skipped ?? []);

        return $this->state->label().match (true) {
            $this->state !== BackupState::Verified || $skipped === 0 => '',
            $skipped === 1 => ', but for 1 name',
            default => ", but for $skipped names",
        };
    }

    /** Names that lie there and are not in it, in a sentence; "" where there are none. */
    public function lacks(): string
    {
        return $this->skipped === null ? '' : 'Not in it, since FTP has no way to name them: '
            .implode(', ', array_slice($this->skipped, 0, 5))
            .(count($this->skipped) > 5 ? ' and '.(count($this->skipped) - 5).' more' : '')
            .'. Rename them at the host, or sign in by SFTP, and they are.';
    }

    /** What it holds of databases, in a sentence; "" where nobody would expect any. */
    public function databasesHeld(): string
    {
        return $this->databases === null
            ? (string) $this->databases_said
            : implode(', ', array_map(
                static fn (array $one): string => "database {$one['name']}, ".Amount::bytes($one['bytes']),
                $this->databases,
            ));
    }

    /** Why it was taken, in words. */
    public function why(): string
    {
        return match ($this->reason) {
            BackupReason::OnDemand => 'asked for',
            BackupReason::Scheduled => 'as promised',
            BackupReason::BeforeDeploy => 'before a deployment',
            BackupReason::BeforeUndo => 'before an undo',
            BackupReason::BeforeFiles => 'before files by hand',
            BackupReason::BeforeRestoreBackup, BackupReason::BeforeRestoreFiles => 'before restoring',
            BackupReason::BeforeRestoreDatabase => 'before a database was restored',
        };
    }

    /**
     * What was read from the server for it, in a sentence; the stored copy of all of it is read back each time.
     *
     * @param  bool  $underHeading  whether a heading says already that it is about what was read from the server
     */
    public function readings(bool $underHeading = false): string
    {
        $rest = match (true) {
            $this->taken_over_files === 0 => '',
            $this->taken_over_since === null => "; $this->taken_over_files as sent by the last run",
            default => "; $this->taken_over_files taken from earlier readings, the "
                ."oldest of {$this->taken_over_since->shown('j M Y')}",
        };

        return "$this->fetched_files of $this->files"
            .($underHeading ? ' read this time' : ' read from the server')
            .$rest;
    }

    /** @return BelongsTo<Site, $this> */
    public function site(): BelongsTo
    {
        return $this->belongsTo(Site::class)->withTrashed();
    }

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    /** @param  Builder<self>  $query */
    protected static function onlyOf(Builder $query, int $client): void
    {
        $query->whereIn('backups.site_id', self::sitesOf($client));
    }
}
