<?php

declare(strict_types=1);

namespace App\Watch;

use App\Models\Backup;
use App\Models\BackupState;
use App\Models\ChangeByHand;
use App\Models\ChangeState;
use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Models\FileDraft;
use App\Models\FileVersion;
use App\Models\Package;
use App\Models\SetAside;
use App\Storage\RunFiles;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\StoreFailure;

/**
 * The hashes of all contents that something refers to. A list that cannot be read is told by name, and what can still
 * be made out in it counts; the others are not held up by it.
 */
final class References
{
    /** @var list<string> what could not be read of all that was asked for, in words */
    public array $unreadable = [];

    public function __construct(private readonly BackupShelf $shelf, private readonly RunFiles $files)
    {
    }

    /**
     * @param  list<string>  $without  names of backups that are left out
     * @return \Generator<string> in any order, repeated or not
     */
    public function all(array $without = []): \Generator
    {
        $this->unreadable = [];
        $names = array_diff([...$this->shelf->names(), ...$this->shelf->unclaimed()], $without);
        yield from $this->ofBackups(array_values($names));
        yield from $this->shelf->salvaged();
        yield from $this->ofDatabases(static fn (?string $name): bool => ! in_array($name, $without, true));
        foreach (Package::kept()->lazyById(20) as $package) {
            yield from $this->readable(
                "the list of the package {$package->title()}",
                static fn (): array => self::hashes($package->contents()->files()),
                static fn (): iterable => BackupShelf::hashes($package->listAsStored()),
            );
        }
        foreach (Deployment::with('site')->whereIn('state', DeploymentState::OPEN)->lazyById(20) as $deployment) {
            yield from $this->readable(
                "the plan of deployment $deployment->id of {$deployment->site->domain}",
                fn (): array => self::hashes($this->files->draft($deployment)?->target()->files() ?? []),
                fn (): iterable => BackupShelf::hashes($this->files->draftAsStored($deployment)),
            );
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

    /**
     * @param  list<string>  $names  of backups on the shelf
     * @return \Generator<string> what these refer to, lists and databases
     */
    public function only(array $names): \Generator
    {
        yield from $this->ofBackups($names);
        yield from $this->ofDatabases(static fn (?string $name): bool => in_array($name, $names, true));
    }

    /**
     * @param  list<string>  $names  of backups on the shelf
     * @return \Generator<string> what their lists name
     */
    private function ofBackups(array $names): \Generator
    {
        foreach ($names as $name) {
            yield from $this->readable(
                "the list of the backup $name",
                fn (): array => self::hashes($this->shelf->manifest($name)->files()),
                fn (): iterable => $this->shelf->salvaged($name),
            );
        }
    }

    /**
     * @param  \Closure(string|null): bool  $isAsked  of the name of a backup
     * @return \Generator<string> databases that were written out with backups
     */
    private function ofDatabases(\Closure $isAsked): \Generator
    {
        $dumped = Backup::where('state', BackupState::Verified)
            ->whereNotNull('databases')
            ->select(['id', 'name', 'databases']);
        foreach ($dumped->lazyById(200) as $backup) {
            yield from $isAsked($backup->name) ? array_column($backup->databases, 'sha256') : [];
        }
    }

    /**
     * @param  \Closure(): list<string>  $read
     * @param  \Closure(): iterable<string>  $salvage
     * @return iterable<string>
     */
    private function readable(string $what, \Closure $read, \Closure $salvage): iterable
    {
        try {
            return $read();
        } catch (\UnexpectedValueException|\LogicException) {
            $this->unreadable[] = $what;
        } catch (StoreFailure $failure) {
            if (! $failure->fault->isOfOneFile()) {
                throw $failure;
            }
            $this->unreadable[] = $what;
        }

        return $salvage();
    }

    /**
     * @param  list<ManifestEntry>  $entries
     * @return list<string>
     */
    private static function hashes(array $entries): array
    {
        return array_values(array_filter(array_map(
            static fn (ManifestEntry $entry): ?string => $entry->sha256,
            $entries,
        )));
    }
}
