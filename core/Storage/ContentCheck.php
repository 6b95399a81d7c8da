<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

/**
 * Reads contents back in the order of their hashes, a part at a time, and goes on behind it the next time: hashes are
 * spread evenly, so that a seventh of their range holds about a seventh of what is there, and all has been read within
 * as many nights as there are parts. What comes in behind the place is read in the next round.
 *
 * What is sealed with a key that is no longer in use is sealed anew as it is read.
 */
final readonly class ContentCheck
{
    public function __construct(private SealedContentStore $store, private StoredObjects $objects)
    {
    }

    /**
     * @param  string  $from  the hash behind the last one that was read; "" for the beginning
     * @param  float  $until  the share of all hashes at which it stops, more than 0 to 1
     * @param  (\Closure(): bool)|null  $goesOn  asked before each; false ends it
     *
     * @throws StoreFailure when the store does not answer or a key is missing: nothing is said of what was not read
     */
    public function read(string $from, float $until, ?\Closure $goesOn = null): CheckedContents
    {
        $end = $until >= 1.0 ? 'g' : sprintf('%08x', (int) ($until * 0x100000000));
        $files = 0;
        $read = 0;
        $anew = 0;
        $damaged = [];
        foreach ($this->objects->sizes($from) as $sha256 => $size) {
            if ($sha256 >= $end || ($goesOn !== null && ! $goesOn())) {
                return new CheckedContents($files, $read, $anew, $damaged, $sha256);
            }
            $files++;
            $read += $size;
            if (! $this->store->isIntact($sha256)) {
                // One that was cleared away meanwhile is not damaged.
                ! $this->store->has($sha256) || $damaged[] = $sha256;
            } elseif ($this->store->seal($sha256)) {
                $anew++;
            }
        }

        return new CheckedContents($files, $read, $anew, $damaged, null);
    }
}
