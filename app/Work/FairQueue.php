<?php

declare(strict_types=1);

namespace App\Work;

use Cellarium\Core\Storage\HeldLock;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\FairShare;
use Cellarium\Core\Work\Urgency;
use Cellarium\Core\Work\WorkAtHost;
use Illuminate\Database\Connection;
use Illuminate\Queue\DatabaseQueue;
use Illuminate\Queue\Jobs\DatabaseJob;
use Illuminate\Queue\Jobs\DatabaseJobRecord;

/**
 * The queue in the database, of which a free worker takes what FairShare says, whatever queue it lies in.
 *
 * Which jobs are in hand is known by the locks of their workers: those of one that ended without warning count no more.
 */
final class FairQueue extends DatabaseQueue
{
    /** All queues, most urgent first; any other name is that queue alone. */
    public const ANY = 'any';

    /** Seconds after which the one that keeps watch looks by itself: for what was ordered for later, for orphans. */
    private const LOOK_SECONDS = 2.0;

    /** The same of the others, which are woken by whoever kept watch and found something. */
    private const SLEEP_SECONDS = 30.0;

    /** Seconds that each worker waits longer than the one before it, so that the first keep their connections. */
    private const BEHIND_SECONDS = 0.004;

    private const CLAIM_SECONDS = 10;

    /** So many of one number may be there at a time: one that was killed may have left processes that hold its lock. */
    private const WORKERS_OF_A_NUMBER = 50;

    private ?HeldLock $self = null;

    /** Held while this one keeps watch for all that wait for the same. */
    private ?HeldLock $watch = null;

    private string $name = '';

    /** Whether its last look found nothing; what ended meanwhile may have made room, so one is taken at once first. */
    private bool $isIdle = false;

    /**
     * @param  int|null  $number  of this worker, from 1; null for one that does not wait until something comes
     */
    public function __construct(
        Connection $database,
        string $table,
        string $default,
        private readonly FairShare $share,
        private readonly Locks $locks,
        private readonly Wakes $wakes,
        private readonly ?int $number,
    ) {
        parent::__construct($database, $table, $default);
    }

    /** @param  string|null  $queue */
    public function pop($queue = null): ?DatabaseJob
    {
        if ($this->isIdle && $this->number !== null) {
            $this->watch ??= $this->locks->acquire("watch-$queue");
            $this->wakes->of((string) $queue)->await(
                $this->watch === null ? self::SLEEP_SECONDS : self::LOOK_SECONDS,
                $this->number * self::BEHIND_SECONDS,
            );
        }
        $job = $this->claim($queue);
        $this->isIdle = $job === null;
        $this->isIdle || $this->leaveWatch((string) $queue);

        return $job;
    }

    /** Another keeps it, and finds what else has come due meanwhile. */
    private function leaveWatch(string $queue): void
    {
        if ($this->watch !== null) {
            $this->watch->release();
            $this->watch = null;
            $this->wakes->of($queue)->one();
        }
    }

    /** Whether a worker of this name is there; what one that is not had in hand is in nobody's. */
    public static function lockName(string $worker): string
    {
        return "worker-$worker";
    }

    private function claim(?string $queue): ?DatabaseJob
    {
        // Before the first look: whose turn it is depends on what the one before it had in hand.
        $this->beOneself();
        // Looked at without the lock first: most looks find nothing.
        if ($this->next($queue) === null) {
            return null;
        }
        $lock = 'claim-'.substr(hash('sha256', (string) $this->database->getDatabaseName()), 0, 40);
        $got = $this->database->scalar('SELECT GET_LOCK(?, ?)', [$lock, self::CLAIM_SECONDS]);
        if ((int) $got !== 1) {
            return null;
        }
        try {
            return $this->take($this->next($queue));
        } finally {
            $this->database->scalar('SELECT RELEASE_LOCK(?)', [$lock]);
        }
    }

    private function take(?WorkAtHost $next): ?DatabaseJob
    {
        $row = $next === null
            ? null
            : $this->database->table($this->table)->where('id', $next->id)->whereNull('reserved_at')->first();
        if ($row === null) {
            return null; // Cancelled, or let go of, in this moment.
        }
        $record = new DatabaseJobRecord($row);
        $this->database->table($this->table)->where('id', $next->id)->update([
            'reserved_at' => $record->touch(),
            'reserved_by' => $this->name,
            'attempts' => $record->increment(),
        ]);

        return new DatabaseJob($this->container, $this, $record, $this->connectionName, $next->claim->urgency->value);
    }

    private function next(?string $queue): ?WorkAtHost
    {
        $rows = $this->database->table($this->table)
            ->selectRaw('queue, host, turn, reserved_at IS NOT NULL AS taken, MIN(id) AS id, COUNT(*) AS jobs')
            ->where(fn ($query) => $query
                ->whereNotNull('reserved_at')
                ->orWhere('available_at', '<=', $this->currentTime()))
            ->groupByRaw('queue, host, turn, reserved_at IS NOT NULL')
            ->get();
        $waiting = $inHand = [];
        foreach ($rows as $row) {
            $work = new WorkAtHost((int) $row->id, new Claim(Urgency::from($row->queue), $row->host, $row->turn));
            if ($row->taken) {
                array_push($inHand, ...array_fill(0, (int) $row->jobs, $work));
            } elseif ($queue === self::ANY || $row->queue === $this->getQueue($queue)) {
                $waiting[] = $work;
            }
        }

        return $queue === self::ANY
            ? $this->share->next($waiting, $inHand)
            : FairShare::first($waiting, $inHand);
    }

    /** Holds a lock of its own from here on; what the one before it of the same name had in hand is let go of. */
    private function beOneself(): void
    {
        for ($try = 0; $this->self === null && $try < self::WORKERS_OF_A_NUMBER; $try++) {
            $this->name = ($this->number ?? 0)."-$try";
            $this->self = $this->locks->acquire(self::lockName($this->name));
            $this->self === null
                || $this->database->table($this->table)->where('reserved_by', $this->name)->delete();
        }
        $this->self !== null
            || throw new \RuntimeException("There are too many workers of the number {$this->number}.");
    }

    /**
     * @param  string|null  $queue
     * @param  string  $payload
     * @param  int  $availableAt
     * @param  int  $attempts
     * @return array<string, mixed>
     */
    protected function buildDatabaseRecord($queue, $payload, $availableAt, $attempts = 0): array
    {
        $data = json_decode($payload, true, flags: JSON_THROW_ON_ERROR)['data'] ?? [];

        return parent::buildDatabaseRecord($queue, $payload, $availableAt, $attempts)
            + ['host' => $data['host'] ?? null, 'turn' => $data['turn'] ?? null];
    }

    /**
     * @param  string|null  $queue
     * @param  string  $payload
     * @param  \DateTimeInterface|\DateInterval|int  $delay
     * @param  int  $attempts
     */
    protected function pushToDatabase($queue, $payload, $delay = 0, $attempts = 0): int
    {
        $id = parent::pushToDatabase($queue, $payload, $delay, $attempts);
        $this->wakes->of(self::ANY)->one();
        // A worker that is kept for closing takes nothing else, so it must not be the one that is woken for it.
        $queue === Urgency::Closing->value && $this->wakes->of($queue)->one();

        return $id;
    }
}
