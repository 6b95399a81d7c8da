<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Backup;
use App\Models\BackupReason;
use App\Models\BackupState;
use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\RunIds;
use Cellarium\Core\Hosting\ControlFailure;
use Cellarium\Core\Hosting\HostJob;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Path\TemporaryName;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\Job\DiscardFile;
use Cellarium\Core\Transfer\Job\SendContent;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\TransferFailed;

/**
 * Makes a database of a site anew from what a backup holds of it. Asked for on its own, and never by undoing: what was
 * ordered or written since is gone then, so what is there is written out and kept first.
 */
final readonly class DatabaseRestore
{
    public function __construct(
        private Connections $connections,
        private ContentStore $store,
        private Backups $backups,
        private DatabaseDumps $dumps,
    ) {
    }

    /**
     * @return string what was done, in sentences
     *
     * @throws Problem where it cannot be done, with the database as it was
     * @throws ControlFailure|TransferFailed
     */
    public function carryOut(Backup $backup, string $name): string
    {
        $held = collect($backup->databases ?? [])->firstWhere('name', $name)
            ?? throw new Problem("Backup number $backup->id holds no database $name.");
        $site = $backup->site;
        $root = $site->applicationRoot();
        $host = $this->connections->jobs($site->account);
        if ($host === null || ! $host->restoresDatabases()) {
            throw new Problem(
                "{$site->account->host} does not restore databases. Download the backup, and bring database-$name.sql "
                    .'in by the panel of the host. Nothing was changed.',
            );
        }
        $before = $this->before($backup, $name);
        $run = RunIds::ofBackup($before->id).'r';
        $pool = new SequentialPool($this->connections->remote($site->account), $this->store);
        $file = $root->parent()->child(TemporaryName::forRun($run, 1));
        $at = new HostJobs($host, $root);
        try {
            $pool->run([new SendContent($held['sha256'], $file, (int) $held['bytes'], "database $name")]);
            $at->finish(
                "restoring the database $name",
                static fn (): HostJob => $host->restore("$run-restore", $name, $at->path($file, $root)),
            );
        } finally {
            $pool->run([new DiscardFile($file)]);
        }
        $now = collect($this->dumps->take($site, $root, "{$run}n")['databases'] ?? [])->firstWhere('name', $name);
        $isSame = ($now['sha256'] ?? null) === $held['sha256'];
        $sentence = "The database $name of $site->domain is as backup number $backup->id of "
            ."{$backup->verified_at?->format('j M Y H:i')} holds it"
            .($isSame ? ', proven by writing it out again' : '; the host says so, and writes it out in other words now')
            .". What it held before is in backup number $before->id.";
        Record::write(
            RecordKind::DatabaseRestored,
            $sentence,
            $site,
            ['backup' => $backup->id, 'before' => $before->id, 'database' => $name],
        );

        return $sentence;
    }

    /** @throws Problem */
    private function before(Backup $backup, string $name): Backup
    {
        $before = Backup::create([
            'site_id' => $backup->site_id,
            'person_id' => auth()->id(),
            'reason' => BackupReason::BeforeRestoreDatabase,
            'state' => BackupState::Taking,
        ]);
        if (! $this->backups->take($before)) {
            $before->delete();
            throw new Problem(
                'Something else is going on at this site. Try again once it has ended; nothing was done.',
            );
        }
        $before->refresh();
        if ($before->state !== BackupState::Verified || ! in_array(
            $name,
            array_column($before->databases ?? [], 'name'),
            true,
        )) {
            throw new Problem(
                "What the database $name holds now could not be written out and kept, so it was not touched: "
                    .($before->trouble ?? $before->databases_said ?? 'the host has none of that name').'.',
            );
        }

        return $before;
    }
}
