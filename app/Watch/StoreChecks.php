<?php

declare(strict_types=1);

namespace App\Watch;

use App\Backups\Expiry;
use App\Backups\StoreFigures;
use App\Models\BackupRule;
use App\Models\BackupState;
use App\Models\DamagedContent;
use App\Models\Package;
use App\Models\RecordKind;
use App\Models\Site;
use App\Models\StoreRound;
use App\Record\Record;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Storage\CheckedContents;
use Cellarium\Core\Storage\ContentCheck;
use Cellarium\Core\Storage\SealedContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Cellarium\Core\Storage\StoreSettings;

/**
 * Reads contents back, so many a night that everything has been read within the days that are set, and tells damage.
 */
final readonly class StoreChecks
{
    /** Of one damaged file, so many places that hold it are named. */
    private const MOST_NAMED = 50;

    public function __construct(
        private StoreSettings $settings,
        private SealedContentStore $store,
        private BackupShelf $shelf,
        private Mender $mender,
    ) {
    }

    /**
     * What is due tonight, and mends what is found damaged, or was before.
     *
     * @param  bool  $all  read everything now, in a round of its own
     */
    public function carryOut(bool $all = false): CheckedContents
    {
        $round = $this->round($all);
        $checked = (new ContentCheck($this->store, $this->settings->objects()))->read(
            (string) $round->next,
            $all ? 1.0 : $round->share(),
        );
        $this->checkLists();
        $this->tell($checked->damaged);
        $round->update([
            'next' => $checked->next,
            'files' => $round->files + $checked->files,
            'bytes' => $round->bytes + $checked->bytes,
            'sealed_anew' => $round->sealed_anew + $checked->sealedAnew,
            'ended_at' => $checked->next === null ? now() : null,
        ]);
        foreach (DamagedContent::open()->get() as $damaged) {
            $this->mender->mend($damaged);
        }
        StoreFigures::note($this->settings);

        return $checked;
    }

    /** Each is small beside what it lists, so that all are read each night. */
    private function checkLists(): void
    {
        foreach (Expiry::held()->with('site')->lazyById(200) as $backup) {
            if (! $this->shelf->setAsideDamaged((string) $backup->name)) {
                continue;
            }
            $trouble = StoreFailure::damagedList((string) $backup->name)->getMessage();
            $backup->update(['state' => BackupState::Failed, 'trouble' => $trouble]);
            $last = Expiry::held()->where(['site_id' => $backup->site_id, 'root' => $backup->site->application_root]);
            Site::whereKey($backup->site_id)->update(['last_backup_at' => $last->max('verified_at')]);
            BackupRule::promise($backup->site_id);
            Record::write(
                RecordKind::ContentsDamaged,
                "Backup $backup->id of {$backup->site->domain} is no backup any more: $trouble",
                $backup->site,
                ['backup' => $backup->id],
            );
        }
    }

    private function round(bool $all): StoreRound
    {
        $open = StoreRound::whereNull('ended_at')->latest('id')->first();
        if ($open !== null && ! $all) {
            return $open;
        }

        return StoreRound::create(['days' => $all ? 1 : max(1, (int) config('cellarium.verify_days'))]);
    }

    /** @param  list<string>  $hashes */
    private function tell(array $hashes): void
    {
        $touches = $hashes === [] ? [] : $this->touched(array_fill_keys($hashes, true));
        foreach ($hashes as $sha256) {
            $damaged = DamagedContent::updateOrCreate(
                ['sha256' => $sha256],
                ['held_in' => $touches[$sha256] ?? [], 'mended_at' => null, 'mended_from' => null],
            );
            Record::write(
                RecordKind::ContentsDamaged,
                "A stored file has other bytes than it had when it was kept: {$damaged->where()}",
                null,
                ['sha256' => $sha256],
            );
        }
    }

    /**
     * @param  array<string, true>  $hashes
     * @return array<string, list<array{what: string, path: string, site: int|null}>>
     */
    private function touched(array $hashes): array
    {
        $touches = [];
        $take = static function (Manifest $manifest, string $what, ?int $site) use ($hashes, &$touches): void {
            foreach ($manifest->files() as $file) {
                $sha256 = (string) $file->sha256;
                if (isset($hashes[$sha256]) && count($touches[$sha256] ?? []) < self::MOST_NAMED) {
                    $touches[$sha256][] = ['what' => $what, 'path' => $file->path->toString(), 'site' => $site];
                }
            }
        };
        foreach (Expiry::held()->with('site')->latest('id')->lazy(100) as $backup) {
            $take(
                $this->shelf->manifest((string) $backup->name),
                "backup $backup->id of {$backup->site->domain}",
                $backup->site_id,
            );
        }
        foreach (Package::kept()->lazyById(20) as $package) {
            $take($package->contents(), "package $package->name $package->version", null);
        }

        return $touches;
    }
}
