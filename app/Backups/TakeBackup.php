<?php

declare(strict_types=1);

namespace App\Backups;

use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Storage\SiteLockNames;
use App\Work\RecoversForgotten;
use App\Work\RecoversOrphans;
use App\Work\Task;
use App\Work\Tasks;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * Takes a backup that was ordered or is due.
 *
 * @implements RecoversForgotten<Backup>
 * @implements RecoversOrphans<Backup>
 */
final readonly class TakeBackup implements RecoversForgotten, RecoversOrphans, Task
{
    /** Nobody waits for one that is taken as promised. */
    private const SECONDS_TO_WAIT = ['promised' => 20, 'ordered' => 2];

    public function __construct(private Backups $backups)
    {
    }

    public static function claim(int $row): ?Claim
    {
        $backup = Backup::with('site.account')->find($row);

        return $backup === null ? null : new Claim(
            $backup->reason === BackupReason::Scheduled ? Urgency::Backup : Urgency::Ordered,
            $backup->site->account->host,
            SiteLockNames::forLogin($backup->site->account),
        );
    }

    public function carryOut(int $row): ?int
    {
        $backup = Backup::with('site.account', 'person')->find($row);
        if ($backup === null || $backup->state !== BackupState::Taking || $this->backups->take($backup)) {
            return null;
        }

        return self::SECONDS_TO_WAIT[$backup->reason === BackupReason::Scheduled ? 'promised' : 'ordered'];
    }

    public function inHand(): Builder
    {
        return Backup::with('site.account')->where('state', BackupState::Taking)->whereNotNull('started_at');
    }

    public function locks(Model $row): array
    {
        return SiteLockNames::forSite($row->site);
    }

    public function settle(Model $row): bool
    {
        $isFree = Backup::where(['id' => $row->id, 'state' => BackupState::Taking])
            ->whereNotNull('started_at')
            ->update(['started_at' => null]) === 1;
        $isFree && Tasks::order(self::class, $row->id);

        return $isFree;
    }

    public function forgotten(\DateTimeInterface $since): Builder
    {
        return Backup::where('state', BackupState::Taking)->whereNull('started_at')->where('updated_at', '<=', $since);
    }

    public function takeUp(Model $row): bool
    {
        $row->touch();
        Tasks::order(self::class, $row->id);

        return false;
    }
}
