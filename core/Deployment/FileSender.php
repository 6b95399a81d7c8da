<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/** Sends many files; one that cannot be sent does not keep the others from it, and a person may have it tried again. */
final readonly class FileSender
{
    /** In bytes. */
    private const LARGE = 1_000_000;

    public function __construct(
        private TransferPool $pool,
        private Journal $journal,
        private RunListener $listener,
    ) {
    }

    /**
     * @param  array<string, int>  $bytes  of what is not sent yet, by path
     * @param  \Closure(string): Job  $job  for a path
     *
     * @throws TransferFailed for the first that could not be sent
     */
    public function all(array $bytes, \Closure $job): void
    {
        $this->listener->stage(RunStage::Sending, count($bytes), array_sum($bytes));
        // Large ones first: else the last of them goes over one connection while the others have nothing to do.
        uasort($bytes, static fn (int $one, int $other): int => self::weight($other) <=> self::weight($one));
        $jobs = (static function () use ($bytes, $job): \Generator {
            foreach (array_keys($bytes) as $path) {
                yield $job((string) $path);
            }
        })();
        do {
            $failed = $this->pool->runAll($jobs, function (Job $job): void {
                $this->journal->note(JournalMark::Sent, $job->subject);
                $this->listener->moved($job->subject, $job->size);
            });
            $jobs = array_map(static fn (TransferFailed $one): Job => $one->job, $failed);
        } while ($failed !== [] && $this->listener->failed($failed));
        if ($failed !== []) {
            throw $failed[0];
        }
    }

    /** Small ones are all alike, and stay in their order. */
    private static function weight(int $bytes): int
    {
        return $bytes < self::LARGE ? 0 : $bytes;
    }
}
