<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Hosting\HostJob;
use Cellarium\Core\Hosting\HostJobs;
use Cellarium\Core\Hosting\WorksOnFiles;

/** Names given by the host itself, where no way there and back lies between them. */
final readonly class NamesByHost implements GivesNames
{
    public function __construct(private HostJobs $at, private RunOrder $order)
    {
    }

    public function give(array $renames): array
    {
        $moves = [];
        foreach ($renames as [$from, $to]) {
            $moves[] = [$this->at->path($from, $this->order->root), $this->at->path($to, $this->order->root)];
        }
        $id = "{$this->order->id}-names-".bin2hex(random_bytes(6));

        return $this->at->finish(
            'giving names',
            static fn (WorksOnFiles $host): HostJob => $host->move($id, $moves),
        )->refused;
    }
}
