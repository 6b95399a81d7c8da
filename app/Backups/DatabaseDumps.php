<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Site;
use App\Storage\RunIds;
use Cellarium\Core\Backup\DatabaseFetch;
use Cellarium\Core\Backup\TakenDatabase;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\HostDatabase;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Words\Count;

/** Databases of a site, written out by its host where it can, of the same moment as the files they belong to. */
final readonly class DatabaseDumps
{
    private const CANNOT = 'its database is not in it: the host does not write databases out';

    public function __construct(private Connections $connections, private ContentStore $store)
    {
    }

    /**
     * That there are none, where a system needs one, is said.
     *
     * @param  RemotePath  $root  that they are written out beside, where no visitor comes
     * @param  string  $run  letters a-z and digits, unique; part of temporary names
     * @return array{databases: list<array<string, int|string>>|null, databases_said: string|null} columns of a backup
     */
    public function take(Site $site, RemotePath $root, string $run): array
    {
        $host = $this->isSafe($site, $root) ? $this->connections->jobs($site->account) : null;
        $said = $site->installed === [] ? null : self::CANNOT;
        if ($host === null) {
            return ['databases' => null, 'databases_said' => $said];
        }
        // The account's own login: one that is made for a job may not come where they are written out.
        $remote = $this->connections->remote($site->account);
        $this->removeLeftOvers($remote, $root->parent());
        try {
            $taken = (new DatabaseFetch(
                new SequentialPool($remote, $this->store),
                $this->store,
                $host,
                new HostJobs($host, $root),
                $root,
                $run,
            ))->take($site->domain);
        } catch (ControlFailure|TransferFailed|RemoteFailure $failure) {
            return [
                'databases' => null,
                'databases_said' => mb_substr('its database is not in it: '.Problem::words($failure), 0, 500),
            ];
        }

        return [
            'databases' => $taken === []
                ? null
                : array_map(static fn (TakenDatabase $one): array => $one->toArray(), $taken),
            'databases_said' => $taken === [] ? $said : null,
        ];
    }

    /** What will be part of a way back, in a sentence; null where nobody would expect a database. */
    public function ahead(Site $site, RemotePath $root): ?string
    {
        try {
            $host = $this->isSafe($site, $root) ? $this->connections->jobs($site->account) : null;
            $names = array_map(
                static fn (HostDatabase $one): string => $one->name,
                array_filter(
                    $host?->databases() ?? [],
                    static fn (HostDatabase $one): bool => $one->site === $site->domain,
                ),
            );
        } catch (ControlFailure $failure) {
            return mb_substr('Whether its database can be written out is not known: '.Problem::words($failure), 0, 500);
        }

        return match (true) {
            $names !== [] => Count::choose(count($names), 'The database ', 'The databases ').implode(', ', $names)
                .Count::choose(count($names), ' is', ' are').' written out with it. Undoing brings no database back: '
                .'what was ordered or written since would be lost. It is restored by itself, from the backup.',
            $site->installed === [] => null,
            default => 'Its database is not part of the way back: the host does not write databases out. Write it out '
                .'in the panel of the host first.',
        };
    }

    /** A worker that was killed leaves a whole database there. */
    private function removeLeftOvers(RemoteDirectory $remote, RemotePath $beside): void
    {
        try {
            foreach ($remote->list($beside) as $entry) {
                $run = TemporaryName::run($entry->name);
                $run !== null && RunIds::isOfBackupLongOver($run) && $remote->remove($beside->child($entry->name));
            }
        } catch (RemoteFailure $failure) {
            logger()->warning("What earlier backups left in $beside was not removed: {$failure->getMessage()}");
        }
    }

    private function isSafe(Site $site, RemotePath $root): bool
    {
        return $root->depth() > 0 && $site->servedAbove($root) === null;
    }
}
