<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

/** Bytes that come one after the other, as an archive without a directory is read. */
interface ByteSource
{
    /**
     * @param  int  $bytes  from 1
     * @return string as many, fewer only at the end
     *
     * @throws PackageRefused Broken
     */
    public function read(int $bytes): string;
}
