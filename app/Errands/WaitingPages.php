<?php

declare(strict_types=1);

namespace App\Errands;

use Cellarium\Core\Connection\HostSlots;
use Cellarium\Core\Storage\StoreFailure;

/** Pages that wait a moment for a host's answer; the others go on answering however many hosts hang. */
final readonly class WaitingPages
{
    /** @param  int  $most  of all pages together; for one host half of them */
    public function __construct(private string $directory, private int $most)
    {
    }

    /**
     * @param  \Closure(): void  $wait  not called where too many wait already
     *
     * @throws StoreFailure
     */
    public function wait(string $host, \Closure $wait): void
    {
        $held = [];
        try {
            foreach (['' => $this->most, "host $host" => max(1, intdiv($this->most, 2))] as $of => $most) {
                $held[] = $place = (new HostSlots($this->directory, $most))->take($of, 0.0);
                if ($place === null) {
                    return;
                }
            }
            $wait();
        } finally {
            array_map(fclose(...), array_filter($held));
        }
    }
}
