<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

/** Has a host do a job, and waits for its end. */
final readonly class HostWork
{
    /** In microseconds. */
    private const FIRST_LOOK = 20_000;

    private const LAST_LOOK = 1_000_000;

    /** So often it is asked again where no answer comes. */
    private const TRIES = 5;

    /** @param  float  $patience  seconds for which a job may show no progress */
    public function __construct(private WorksOnFiles $host, private float $patience = 120)
    {
    }

    /**
     * @param  \Closure(WorksOnFiles): HostJob  $begin  asks for it, under an id that stays the same
     * @param  (\Closure(int, int): void)|null  $hear  files done and of how many; what it throws ends the waiting
     * @return HostJob that is done
     *
     * @throws ControlFailure where it failed, or does not get on, or the host no longer answers
     */
    public function finish(string $what, \Closure $begin, ?\Closure $hear = null): HostJob
    {
        $job = $this->patiently(fn (): HostJob => $begin($this->host));
        $wait = self::FIRST_LOOK;
        $begun = hrtime(true);
        $moved = $begun;
        while ($job->state === HostJobState::Running) {
            usleep($wait);
            // A fifth of what it has taken so far, so that its end is heard of soon after.
            $wait = min(self::LAST_LOOK, max(self::FIRST_LOOK, intdiv(hrtime(true) - $begun, 5_000)));
            $next = $this->patiently(fn (): HostJob => $this->host->job($job->id));
            if ($next->done !== $job->done) {
                $moved = hrtime(true);
            } elseif ((hrtime(true) - $moved) / 1e9 > $this->patience) {
                throw ControlFailure::while($what, ControlFault::Failed, 'it does not get on');
            }
            $job = $next;
            $hear === null || $hear($job->done, $job->total);
        }
        if ($job->state === HostJobState::Failed) {
            throw ControlFailure::while($what, ControlFault::Failed, $job->message);
        }

        return $job;
    }

    /**
     * @param  \Closure(): HostJob  $ask
     *
     * @throws ControlFailure
     */
    private function patiently(\Closure $ask): HostJob
    {
        for ($try = 1; ; $try++) {
            try {
                return $ask();
            } catch (ControlFailure $failure) {
                if ($try >= self::TRIES || $failure->reason !== ControlFault::Unreachable) {
                    throw $failure;
                }
                usleep($try * 100_000);
            }
        }
    }
}
