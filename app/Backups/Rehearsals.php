<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Backup;
use App\Models\BackupRule;
use App\Models\BackupState;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Backup\Rehearsal;
use Cellarium\Core\Backup\RehearsalFailed;
use Cellarium\Core\Backup\RehearsalStage;
use Cellarium\Core\Deployment\RunPlace;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Storage\StoreFailure;

/** Brings backups back where nobody sees it, one at a time, and writes down what came of it. */
final readonly class Rehearsals
{
    public function __construct(
        private ContentStore $store,
        private BackupShelf $shelf,
        private Connections $connections,
        private Locks $locks,
    ) {
    }

    /**
     * @return bool false while another is going on
     *
     * @throws StoreFailure when the store does not answer, and nothing is known
     */
    public function carryOut(Backup $backup): bool
    {
        $backup->loadMissing('site.account');
        $lock = $this->locks->acquire('rehearsal');
        if ($lock === null) {
            return false;
        }
        try {
            $backup->refresh();
            if ($backup->state === BackupState::Verified) {
                $this->writeDown($backup, $this->rehearsed($backup));
            }
        } finally {
            $lock->release();
        }

        return true;
    }

    /** @return array<string, int|float|string> what came of it, with "trouble" where it failed */
    private function rehearsed(Backup $backup): array
    {
        $site = $backup->site;
        $root = (string) config('cellarium.rehearsal.root');
        $url = (string) config('cellarium.rehearsal.url');
        $place = new RunPlace($backup->rootPath(), $site->placeFrom($backup->rootPath())->served);
        try {
            return (new Rehearsal(
                $this->store,
                $root === '' ? config('cellarium.var').'/rehearsal' : $root,
                $root === '' || $url === '' ? null : new RehearsalStage($this->connections->web(), $url),
            ))->carryOut(
                $this->shelf->manifest((string) $backup->name),
                $place->allInRun($site->start_pages),
            )->toArray();
        } catch (RehearsalFailed $failure) {
            return ['trouble' => $failure->getMessage()];
        } catch (StoreFailure $failure) {
            return $failure->fault->isOfOneFile() ? ['trouble' => Problem::words($failure)] : throw $failure;
        }
    }

    /** @param  array<string, int|float|string>  $rehearsal */
    private function writeDown(Backup $backup, array $rehearsal): void
    {
        $site = $backup->site;
        $trouble = $rehearsal['trouble'] ?? null;
        $at = now(); // Of both the same: the site's fact is found again by it.
        $backup->update(['rehearsed_at' => $at, 'rehearsal' => $rehearsal]);
        if ($backup->root === $site->application_root) {
            Site::whereKey($site->id)->update(
                ['rehearsal_trouble' => $trouble === null ? null : mb_substr((string) $trouble, 0, 1000)]
                    + ($trouble === null ? ['rehearsed_at' => $at] : []),
            );
            BackupRule::promise($site->id);
        }
        Record::write(
            RecordKind::BackupRehearsed,
            $trouble === null
                ? "Backup $backup->id of $site->domain rehearsed: {$rehearsal['files']} files unpacked and the same, "
                    ."{$rehearsal['pages']} of {$rehearsal['of_pages']} pages given with the same bytes"
                : "Backup $backup->id of $site->domain could not be rehearsed: $trouble",
            $site,
            ['backup' => $backup->id],
        );
    }

    /** The newest whole backup of what is the site itself. */
    public static function newest(Site $site): ?Backup
    {
        return Expiry::held()
            ->where('site_id', $site->id)
            ->where('root', $site->application_root)
            ->latest('verified_at')
            ->first();
    }

    /** @return list<Backup> the newest backups of sites whose rehearsals are due within a day */
    public function due(int $most): array
    {
        $sites = Site::where('rehearsal_promised_at', '<', now()->addDay())
            ->orderBy('rehearsal_promised_at')
            ->limit($most)
            ->get();

        return $sites->map(self::newest(...))->filter()->values()->all();
    }
}
