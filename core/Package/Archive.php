<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/** An archive that has been found safe to open; entries are read in their order. */
interface Archive
{
    /**
     * @return iterable<ArchiveEntry>
     *
     * @throws PackageRefused
     */
    public function entries(): iterable;

    /**
     * The bytes of the entry that entries() stands at, in chunks.
     *
     * @return iterable<string>
     *
     * @throws PackageRefused when it is broken or longer than declared
     */
    public function chunks(ArchiveEntry $entry): iterable;
}
