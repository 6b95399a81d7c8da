<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\Backup;
use App\Models\BackupState;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\Errand;
use App\Models\FileDraft;
use App\Models\FileVersion;
use App\Models\Package;
use App\Models\RecordKind;
use App\Models\SetAside;
use App\Packages\Uploads;
use App\Record\Record;
use App\Removal\Removal;
use App\Storage\RunFiles;
use App\Text\Amount;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\ContentSweep;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Storage\WorkInProgress;

/**
 * Removes what nobody will ever ask for again: files on their way in that never arrived, contents nothing refers to.
 */
final readonly class Cleaner
{
    /** What was touched within this time may still be on its way. */
    private const SECONDS_OF_GRACE = 86400;

    public function __construct(
        private BackupShelf $shelf,
        private RunFiles $files,
        private Removal $removal,
        private Uploads $uploads,
        private StoreSettings $store,
        private WorkInProgress $work,
    ) {
    }

    /** @return array{files: int, bytes: int} that were freed */
    public function clean(): array
    {
        $var = (string) config('cellarium.var');
        $before = time() - self::SECONDS_OF_GRACE;
        Errand::where('created_at', '<', now()->subSeconds(self::SECONDS_OF_GRACE))->delete();
        // Of files that nobody has open any more, and that nobody has changed.
        FileDraft::whereNull('text')->where('here_at', '<', now()->subSeconds(self::SECONDS_OF_GRACE))->delete();
        $this->removal->expire();
        $this->uploads->expire();
        $this->unshelve();
        $files = 0;
        $bytes = 0;
        foreach (
            [
                "$var/contents/incoming/*",
                "$var/uploads/*",
                "$var/manifests/*.new",
                "$var/backups/*.new",
                "$var/runs/*/*.new",
            ] as $pattern
        ) {
            foreach (glob($pattern) ?: [] as $file) {
                $size = (int) @filesize($file);
                if (is_file($file) && (int) @filemtime($file) < $before && @unlink($file)) {
                    $files++;
                    $bytes += $size;
                }
            }
        }
        [$more, $moreBytes] = (new ContentSweep($this->store->objects(), $this->work))
            ->remove($this->referenced(), $before);
        $freed = ['files' => $files + $more, 'bytes' => $bytes + $moreBytes];
        if ($freed['files'] > 0) {
            Record::write(
                RecordKind::Cleaned,
                'Removed '
                    .Amount::files($freed['files'])
                    .' that nothing refers to, '
                    .Amount::bytes($freed['bytes'])
                    .' freed',
            );
        }

        return $freed;
    }

    /**
     * @param  list<string>  $names  of backups on the shelf
     * @return int bytes that would be freed without them, beside what nothing refers to already
     */
    public function freedWithout(array $names): int
    {
        if ($names === []) {
            return 0;
        }
        $sweep = new ContentSweep($this->store->objects(), $this->work);
        $sum = static function (iterable $sizes): int {
            $bytes = 0;
            foreach ($sizes as $size) {
                $bytes += $size;
            }

            return $bytes;
        };

        return $sum($sweep->unreferenced($this->referenced($names))) - $sum($sweep->unreferenced($this->referenced()));
    }

    /** Backups whose time is over leave the shelf; what they alone held goes with the sweep. */
    private function unshelve(): void
    {
        foreach (Backup::where('state', BackupState::Expired)->whereNotNull('name')->lazyById(200) as $backup) {
            $this->shelf->remove((string) $backup->name);
            $backup->update(['name' => null]);
        }
    }

    /**
     * @param  list<string>  $without  names of backups that are left out
     * @return \Generator<string> the hashes of all contents that something refers to
     */
    private function referenced(array $without = []): \Generator
    {
        foreach (array_diff($this->shelf->names(), $without) as $name) {
            yield from self::hashes($this->shelf->manifest($name)->files());
        }
        $dumped = Backup::where('state', BackupState::Verified)
            ->whereNotNull('databases')
            ->select(['id', 'name', 'databases']);
        foreach ($dumped->lazyById(200) as $backup) {
            yield from in_array($backup->name, $without, true) ? [] : array_column($backup->databases, 'sha256');
        }
        foreach (Package::kept()->lazyById(20) as $package) {
            yield from self::hashes($package->contents()->files());
        }
        foreach (
            Deployment::whereIn('state', DeploymentState::OPEN)->lazyById(20) as $deployment
        ) {
            yield from $this->targets($deployment);
        }
        foreach (SetAside::held()->lazyById(500) as $held) {
            yield $held->sha256;
        }
        $versions = FileVersion::whereNotNull('sha256')->where('held_until', '>', now());
        foreach ($versions->select(['id', 'sha256'])->lazyById(500) as $version) {
            yield (string) $version->sha256;
        }
        yield from FileDraft::whereNotNull('base_sha256')->pluck('base_sha256')->all();
        foreach (ChangeByHand::whereIn('state', ChangeState::OPEN)->lazyById(20) as $change) {
            yield from array_filter(array_column($change->getAttribute('steps') ?? [], 'sha256'));
            foreach ($change->refers['mends'] ?? [] as $mend) {
                yield from [$mend['sha256'], $mend['save']['sha256']];
            }
        }
    }

    /** @return \Generator<string> */
    private function targets(Deployment $deployment): \Generator
    {
        $draft = $this->files->draft($deployment);
        if ($draft !== null) {
            yield from self::hashes($draft->target()->files());
        }
    }

    /**
     * @param  list<ManifestEntry>  $entries
     * @return \Generator<string>
     */
    private static function hashes(array $entries): \Generator
    {
        foreach ($entries as $entry) {
            if ($entry->sha256 !== null) {
                yield $entry->sha256;
            }
        }
    }
}
