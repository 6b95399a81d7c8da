<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\RenameTogether;
use Cellarium\Core\Transfer\TransferPool;

/** Names given over a connection of the login. */
final readonly class NamesByLogin implements GivesNames
{
    public function __construct(private TransferPool $pool)
    {
    }

    public function give(array $renames): array
    {
        $said = [];
        $this->pool->run(
            [new RenameTogether($renames, $renames[0][0]->name())],
            static function (Job $job, JobResult $result) use (&$said): void {
                $said = $result->names;
            },
        );

        return $said;
    }
}
