<?php

declare(strict_types=1);

namespace App\Hosting;

use Cellarium\Core\Connection\HostSlots;
use Cellarium\Core\Storage\StoreFailure;

/** So many at a time over all processes, and of one host no more than half of them: the others stay for the others. */
final readonly class HostShare
{
    private HostSlots $all;

    private HostSlots $ofOne;

    public function __construct(string $directory, int $most)
    {
        $this->all = new HostSlots("$directory/all", max(1, $most));
        $this->ofOne = new HostSlots("$directory/hosts", max(1, intdiv($most, 2)));
    }

    /** Pages that wait a moment for a host's answer. */
    public static function ofPages(): self
    {
        return new self(config('cellarium.var').'/locks/pages', (int) config('cellarium.waiting_pages'));
    }

    /** Downloads that are sent while they are fetched. */
    public static function ofTransfers(): self
    {
        return new self(config('cellarium.var').'/locks/transfers', (int) config('cellarium.passing_downloads'));
    }

    /**
     * @return list<resource>|null to be closed when it is over; null where too many are at it already
     *
     * @throws StoreFailure
     */
    public function take(string $host): ?array
    {
        $place = $this->ofOne->take($host, 0.0);
        $among = $place === null ? null : $this->all->take('', 0.0);
        if ($place !== null && $among === null) {
            fclose($place);
        }

        return $place === null || $among === null ? null : [$place, $among];
    }
}
