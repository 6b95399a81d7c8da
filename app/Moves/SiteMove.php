<?php

declare(strict_types=1);

namespace App\Moves;

use App\Models\Backup;
use App\Models\Destination;
use App\Models\Site;
use Cellarium\Core\Move\DirectoryMap;
use Cellarium\Core\Path\RemotePath;

/** A site, where it is to begin in the other account, and what is put there. */
final readonly class SiteMove
{
    public RemotePath $from;

    /** The newest backup of all of it; null where there is none. */
    public ?Backup $backup;

    /** @var list<array{name: string, from: RemotePath, to: RemotePath|null}> directories with a name */
    public array $destinations;

    /** @var list<array{path: string, from: RemotePath, to: RemotePath, backup: Backup|null}> answered below the site */
    public array $mounts;

    /**
     * @param  array<string, Backup>  $backups  the newest by where they begin
     * @param  string|null  $objection  why it cannot begin there
     */
    public function __construct(
        public Site $site,
        public RemotePath $to,
        private DirectoryMap $map,
        array $backups,
        public ?string $objection,
    ) {
        $this->from = $site->applicationRoot();
        $this->backup = $backups[(string) $site->application_root] ?? null;
        $this->destinations = array_values($site->destinations->map(
            static fn (Destination $one): array => [
                'name' => $one->name,
                'from' => $one->path(),
                'to' => $map->of($one->path()),
            ],
        )->all());
        $this->mounts = array_map(static fn (array $mount): array => [
            'path' => $mount['path'],
            'from' => RemotePath::fromString($mount['directory']),
            'to' => $map->of(RemotePath::fromString($mount['directory']))
                ?? RemotePath::fromString($mount['directory']),
            'backup' => $backups[$mount['directory']] ?? null,
        ], array_values($site->mounts));
    }

    /** Where visitors come in there. */
    public function documentRoot(): RemotePath
    {
        return $this->map->of($this->site->root()) ?? $this->to;
    }

    /** Whether it can be made there now. */
    public function canBeMade(): bool
    {
        return $this->backup !== null && $this->objection === null;
    }

    /** @return list<Backup> what is put there: all of it, and directories that are mounted from elsewhere */
    public function puts(): array
    {
        $mounted = array_filter(
            $this->mounts,
            fn (array $mount): bool => $mount['backup'] !== null && ! $this->from->contains($mount['from']),
        );

        return array_values(array_filter([$this->backup, ...array_column($mounted, 'backup')]));
    }
}
