<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Path\RemotePath;

/** A host that writes a database of the account out into a file of it, as a job like those of WorksOnFiles. */
interface DumpsDatabases
{
    /**
     * Those that can be written out; none where the host does not.
     *
     * @return list<HostDatabase>
     *
     * @throws ControlFailure
     */
    public function databases(): array;

    /**
     * @param  RemotePath  $file  seen from the account's home; it has its name only once it is whole
     *
     * @throws ControlFailure
     */
    public function dump(string $id, string $database, RemotePath $file): HostJob;

    /**
     * Whether a database can be made anew from what was written out.
     *
     * @throws ControlFailure
     */
    public function restoresDatabases(): bool;

    /**
     * What the database held is gone then; all of the statements are carried out, or none.
     *
     * @param  RemotePath  $file  that dump() wrote, seen from the account's home
     *
     * @throws ControlFailure
     */
    public function restore(string $id, string $database, RemotePath $file): HostJob;
}
