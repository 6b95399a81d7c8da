<?php

declare(strict_types=1);

namespace App\Errands;

use App\Failure\Problem;
use App\Models\Errand;
use App\Models\ErrandState;
use App\Work\ActingPerson;
use App\Work\Task;
use App\Work\TaskName;
use Cellarium\Core\Storage\Locks;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;

/** One kind of what a page asks a server for; a worker does it while the page waits, and writes down how it ended. */
abstract class ErrandTask implements Task
{
    private const SECONDS_BETWEEN_LOOKS = 1.0;

    /** A heading that says what is going on, for the page that waits for it. */
    abstract public static function title(): string;

    /**
     * Called as the person who asked for it.
     *
     * @return ErrandResult|null null where it was cancelled
     *
     * @throws \Throwable its words are shown, where Problem knows it
     */
    abstract protected function do(Errand $errand): ?ErrandResult;

    /** A sentence about what it is waited for. */
    public static function waitsFor(): string
    {
        return 'The server has not answered yet.';
    }

    /**
     * Whether it can be cancelled once it has begun: it changes nothing at the host, or takes its own trace away again.
     */
    public static function onlyLooks(): bool
    {
        return true;
    }

    /** What may take minutes must not keep those waiting that take a moment. */
    public static function urgency(): Urgency
    {
        return Urgency::Errand;
    }

    /** Whether what comes of it is for the page that waits, and for no later one. */
    public static function isTakenHere(): bool
    {
        return false;
    }

    /** Whether the page that waits for it may go on. */
    public static function isReady(Errand $errand): bool
    {
        return $errand->state->hasEnded();
    }

    /** The page that whoever waits is led to once it is ready. */
    public static function leadsTo(Errand $errand): string
    {
        return $errand->back;
    }

    /** @return class-string<self> */
    final public static function find(Errand $errand): string
    {
        $task = TaskName::find($errand->kind);

        return is_a($task, self::class, true)
            ? $task
            : throw new \LogicException("$task is no errand.");
    }

    final public static function lockName(int $errand): string
    {
        return "errand-$errand";
    }

    final public static function claim(int $row): ?Claim
    {
        $errand = Errand::with('account', 'site.account', 'ftpUser.account')->find($row);

        return $errand === null ? null : new Claim(static::urgency(), $errand->host());
    }

    final public function carryOut(int $row): ?int
    {
        $lock = app(Locks::class)->acquire(self::lockName($row));
        try {
            $lock === null || $this->take($row);
        } finally {
            $lock?->release();
        }

        return null;
    }

    private function take(int $row): void
    {
        // Once and by one: an errand whose worker was killed is not done again by itself, it may have been half done.
        $isTaken = Errand::where(['id' => $row, 'state' => ErrandState::Waiting])->update([
            'state' => ErrandState::Running,
            'started_at' => now(),
        ]) === 1;
        $errand = $isTaken
            ? Errand::with(
                'client.accounts.sites',
                'client.sites',
                'account.client',
                'account.sites',
                'site.account.client',
                'ftpUser.account.sites',
                'person',
            )->find($row)
            : null;
        if ($errand === null) {
            return;
        }
        try {
            $result = ActingPerson::during($errand->person, fn (): ?ErrandResult => $this->do($errand));
            $result === null || self::end($errand, $result->toColumns());
        } catch (\Throwable $failure) {
            $isExpected = Problem::isExpected($failure);
            self::end($errand, [
                'state' => ErrandState::Failed,
                'words' => $isExpected ? Problem::words($failure) : 'An error inside Cellarium; its log says which.',
            ]);
            if (! $isExpected) {
                throw $failure;
            }
        }
    }

    /**
     * Unless it was cancelled meanwhile.
     *
     * @param  array<string, mixed>  $columns
     */
    private static function end(Errand $errand, array $columns): void
    {
        self::isGoing($errand) && $errand->update($columns);
    }

    private static function isGoing(Errand $errand): bool
    {
        return Errand::whereKey($errand->id)->where('state', ErrandState::Running)->exists();
    }

    protected static function removed(): Problem
    {
        return new Problem('It was removed meanwhile. Nothing was done.');
    }

    /** @return \Closure(): void that throws Cancelled once somebody has cancelled it; it looks once a second */
    protected static function untilCancelled(Errand $errand): \Closure
    {
        $next = 0.0;

        return static function () use ($errand, &$next): void {
            if (hrtime(true) / 1e9 > $next) {
                $next = hrtime(true) / 1e9 + self::SECONDS_BETWEEN_LOOKS;
                self::isGoing($errand) || throw Cancelled::byAPerson();
            }
        };
    }
}
