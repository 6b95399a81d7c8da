<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Path\RemotePath;

/**
 * A host that packs, unpacks and moves the files of an account by itself, as jobs that go on while one looks.
 *
 * Paths are seen from the account's home. An id is chosen by whoever asks (8 to 64 of a-z, 0-9, hyphen), and asking
 * again under the same id begins nothing new: so an answer that was lost is simply asked for once more.
 */
interface WorksOnFiles
{
    /** Whether it does. @throws ControlFailure */
    public function offersJobs(): bool;

    /**
     * Packs a directory with all below it, without links, into a zip archive.
     *
     * @throws ControlFailure
     */
    public function pack(string $id, RemotePath $directory, RemotePath $archive): HostJob;

    /**
     * Unpacks a zip archive over what is in a directory, which is made where it is missing.
     *
     * @throws ControlFailure
     */
    public function unpack(string $id, RemotePath $archive, RemotePath $into): HostJob;

    /**
     * Gives files and directories other names, one right after the other, each only where nothing has that name; one
     * that is refused keeps none of the others from it.
     *
     * @param  non-empty-list<array{RemotePath, RemotePath}>  $moves
     *
     * @throws ControlFailure
     */
    public function move(string $id, array $moves): HostJob;

    /** @throws ControlFailure NoSuchJob */
    public function job(string $id): HostJob;
}
