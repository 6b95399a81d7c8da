<?php

declare(strict_types=1);

namespace App\Work;

use Cellarium\Core\Work\Claim;
use Cellarium\Core\Work\Urgency;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Queue;

/** The line in which tasks wait for a worker. */
final class Tasks
{
    private const VERSION = 1;

    /**
     * @param  class-string<Task>  $task
     * @param  int  $row  number of what it is about
     * @param  int  $after  seconds before which no worker begins it
     * @param  Urgency|null  $urgency  another than the one that its kind has
     */
    public static function order(string $task, int $row, int $after = 0, ?Urgency $urgency = null): void
    {
        $claim = $task::claim($row) ?? new Claim($urgency ?? Urgency::Ordered);
        self::push($after, $urgency ?? $claim->urgency, [
            'v' => self::VERSION,
            'task' => TaskName::forTask($task),
            'row' => $row,
            'person' => is_a($task, ForPerson::class, true) ? Auth::id() : null,
            'host' => $claim->host,
            'turn' => $claim->turn,
        ]);
    }

    /**
     * The same once more: another order and not a further try of that one, since waiting is no failure.
     *
     * @param  array<string, mixed>  $order
     */
    public static function again(array $order, int $after, Urgency $urgency): void
    {
        self::push($after, $urgency, $order);
    }

    /** @param  array<string, mixed>  $order */
    private static function push(int $after, Urgency $urgency, array $order): void
    {
        $after === 0
            ? Queue::push(RunTask::class, $order, $urgency->value)
            : Queue::later($after, RunTask::class, $order, $urgency->value);
    }
}
