<?php

declare(strict_types=1);

namespace App\Work;

use App\Models\Person;
use Cellarium\Core\Work\Urgency;
use Illuminate\Contracts\Container\Container;
use Illuminate\Contracts\Queue\Job;

/** Carries out, in a worker, what Tasks has ordered. */
final readonly class RunTask
{
    public function __construct(private Container $container)
    {
    }

    /** @param  array{v: int, task: string, row: int, person: int|null, host: string|null, turn: string|null}  $order */
    public function fire(Job $job, array $order): void
    {
        $task = TaskName::find($order['task']);
        $person = $order['person'] === null ? null : Person::find($order['person']);
        $again = ActingPerson::during($person, fn (): ?int => $this->container->make($task)->carryOut($order['row']));
        $job->delete();
        $again === null || Tasks::again(
            $order,
            $again,
            Urgency::tryFrom((string) $job->getQueue()) ?? Urgency::Ordered,
        );
    }
}
