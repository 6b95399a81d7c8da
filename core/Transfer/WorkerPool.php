<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Connection\Endpoint;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\HostSlots;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\StoreSettings;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\ListDirectory;

/**
 * Several processes with one reused connection each.
 *
 * Processes and not one multi handle, because libcurl waits for the closing 226 of each upload while all its other
 * transfers stand still. A host that forbids so many connections costs a connection, not the run.
 */
final class WorkerPool implements TransferPool
{
    private const WAIT_SECONDS = 0.4;

    /** So often in a row looking at the workers may be cut short. */
    private const MOST_DEAF = 50;

    /** How long a run waits for other work on the same host, in seconds. */
    private const SLOT_SECONDS = 60.0;

    /** How often in a row looking at the workers was cut short. */
    private int $deaf = 0;

    /** @var array<int, Worker> by number of the connection */
    private array $workers = [];

    /** @var list<array{Job, int, float}> jobs to try again: job, tries so far, not before */
    private array $again = [];

    /** @var list<int> that are used: fewer than asked for, once the host has refused some */
    private array $connections;

    private readonly int $asked;

    private readonly Retries $retries;

    /** @var array<int, int> tries of the job in hand, by number of the connection */
    private array $tries = [];

    /** Those of single files are gathered here; null where the first ends it all. */
    private ?FileFailures $failures = null;

    /** @var array<int, resource> the host's slots that are taken, by number of the connection */
    private array $taken = [];

    /**
     * @param  int  $connections  connections at the most
     * @param  HostSlots|null  $slots  what all processes together may have there; a worker without one stands still
     * @param  list<resource>  $inherit  see Worker
     * @param  int|null  $bytesASecond  that each connection may move; null for as many as it can
     * @param  StoreSettings|null  $store  for jobs that keep, send or compare contents
     */
    public function __construct(
        private readonly Endpoint $endpoint,
        int $connections,
        private readonly ?TransferListener $listener = null,
        private readonly array $inherit = [],
        private readonly ?HostSlots $slots = null,
        private readonly ?int $bytesASecond = null,
        private readonly ?StoreSettings $store = null,
    ) {
        $this->asked = max(1, $connections);
        $this->connections = range(0, $this->asked - 1);
        $this->retries = new Retries(self::now());
    }

    public function runAll(iterable $jobs, ?\Closure $done = null): array
    {
        $failures = $this->failures = new FileFailures;
        try {
            $this->run($jobs, $done);
        } finally {
            $this->failures = null;
        }

        return $failures->all;
    }

    public function run(iterable $jobs, ?\Closure $done = null): void
    {
        $queue = (static function () use ($jobs): \Generator {
            yield from $jobs;
        })();
        $this->again = [];
        $this->retries->begin(self::now());
        try {
            while ($this->feed($queue) || $this->busy() !== [] || $this->again !== []) {
                $this->hear($done);
                $this->listener?->beat();
            }
        } catch (\Throwable $failure) {
            $this->close();
            throw $failure;
        }
    }

    public function taken(): ?int
    {
        return count($this->connections) < $this->asked ? count($this->connections) : null;
    }

    public function close(): void
    {
        foreach ($this->workers as $worker) {
            $worker->stop();
        }
        $this->workers = [];
        array_map(fclose(...), $this->taken);
        $this->taken = [];
    }

    public function __destruct()
    {
        $this->close();
    }

    /** @param  \Generator<Job>  $queue */
    private function feed(\Generator $queue): bool
    {
        foreach ($this->connections as $number) {
            $worker = $this->workers[$number] ?? null;
            if ($worker?->job !== null) {
                continue;
            }
            if ($worker === null && ! $this->takeSlot($number)) {
                break;
            }
            $next = $this->next($queue);
            if ($next === null) {
                break;
            }
            $worker ??= $this->workers[$number] = new Worker(
                $number,
                $this->endpoint,
                $this->inherit,
                $this->bytesASecond,
                $this->store,
            );
            [$job, $this->tries[$number]] = $next;
            $worker->give($job);
            $this->listener?->connection($number, $job, 0);
        }

        return $queue->valid();
    }

    /** The first connection waits for a slot, the others do without. */
    private function takeSlot(int $number): bool
    {
        if ($this->slots === null || isset($this->taken[$number])) {
            return true;
        }
        $slot = $this->slots->take($this->endpoint->host, $this->workers === [] ? self::SLOT_SECONDS : 0.0);
        if ($slot === null && $this->workers === []) {
            throw new TransferFailed(
                new ListDirectory(RemotePath::root()),
                RemoteFailure::while(
                    "connecting to {$this->endpoint->host}",
                    FailureReason::TooManyConnections,
                    'all connections that this host is allowed are in use here',
                ),
            );
        }
        $slot === null ?: $this->taken[$number] = $slot;

        return $slot !== null;
    }

    /**
     * @param  \Generator<Job>  $queue
     * @return array{Job, int}|null
     */
    private function next(\Generator $queue): ?array
    {
        foreach ($this->again as $index => [$job, $tries, $notBefore]) {
            if ($notBefore <= hrtime(true) / 1e9) {
                array_splice($this->again, $index, 1);

                return [$job, $tries + 1];
            }
        }
        if (! $queue->valid()) {
            return null;
        }
        $job = $queue->current();
        $queue->next();

        return [$job, 1];
    }

    private function hear(?\Closure $done): void
    {
        $busy = $this->busy();
        $ready = array_map(static fn (Worker $worker): mixed => $worker->output, $busy);
        $none = null;
        if ($ready === []) {
            usleep(20_000);

            return;
        }
        if (@stream_select($ready, $none, $none, 0, 300_000) === false) {
            // A signal; the next turn looks again. Not when it fails each time: PHP hears no descriptor from 1024 on.
            ++$this->deaf < self::MOST_DEAF
                || throw new \RuntimeException('The workers cannot be heard: this process has too many files open.');

            return;
        }
        $this->deaf = 0;
        foreach (array_keys($ready) as $number) {
            $worker = $this->workers[$number];
            $lines = $worker->hear();
            if ($lines === null) {
                $this->lost(
                    $worker,
                    RemoteFailure::while('a transfer worker', FailureReason::Disconnected, 'the worker process ended'),
                );

                continue;
            }
            foreach ($lines as $line) {
                $this->answer($worker, JsonFields::fromJson($line), $done);
            }
        }
    }

    private function answer(Worker $worker, JsonFields $message, ?\Closure $done): void
    {
        $job = $worker->job;
        if ($job === null) {
            return;
        }
        $message->has('failed') || $this->retries->heard(self::now());
        if ($message->has('bytes')) {
            $this->listener?->connection($worker->number, $job, $message->number('bytes'));
        } elseif ($message->has('done')) {
            $worker->job = null;
            $this->listener?->connection($worker->number, null, 0);
            if ($done !== null) {
                $done($job, JobResult::fromFields($message->fields('done')));
            }
        } else {
            $failed = $message->fields('failed');
            $failure = RemoteFailure::while(
                $failed->text('what'),
                FailureReason::from($failed->text('reason')),
                $failed->textOrNull('said'),
            );
            $failure->reason->isTransient() || $this->retries->heard(self::now());
            if ($failure->reason === FailureReason::TooManyConnections && count($this->connections) > 1) {
                $this->tries[$worker->number]--;
                $this->connections = array_values(array_diff($this->connections, [$worker->number]));
                $this->lost($worker, $failure);
            } else {
                $worker->job = null;
                $this->retry($worker->number, $job, $failure);
            }
        }
    }

    private function lost(Worker $worker, RemoteFailure $failure): void
    {
        $job = $worker->job;
        $worker->stop();
        unset($this->workers[$worker->number]);
        if (isset($this->taken[$worker->number])) {
            fclose($this->taken[$worker->number]);
            unset($this->taken[$worker->number]);
        }
        $this->listener?->connection($worker->number, null, 0);
        if ($job !== null) {
            $this->retry($worker->number, $job, $failure);
        }
    }

    private function retry(int $number, Job $job, RemoteFailure $failure): void
    {
        $tries = $this->tries[$number] ?? 1;
        if (! $this->retries->mayTryAgain($failure->reason, $tries, self::now())) {
            $failed = new TransferFailed($job, $failure);
            $this->failures === null ? throw $failed : $this->failures->add($failed);

            return;
        }
        $this->again[] = [$job, $tries, hrtime(true) / 1e9 + self::WAIT_SECONDS * $tries];
    }

    private static function now(): float
    {
        return hrtime(true) / 1e9;
    }

    /** @return array<int, Worker> */
    private function busy(): array
    {
        return array_filter($this->workers, static fn (Worker $worker): bool => $worker->job !== null);
    }
}
