<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/**
 * A connection over which paths can be tried exactly as they are written, to find out whether a login is kept in its
 * directory.
 */
interface TriesPaths
{
    /**
     * What the server shows where a sign-in lands, before any path was named.
     *
     * @return list<RemoteEntry>
     *
     * @throws RemoteFailure
     */
    public function landing(): array;

    /**
     * What the server shows after going from there to a path that is sent as it is, dots and signs included.
     *
     * @param  string  $raw  without control characters
     * @return list<RemoteEntry>
     *
     * @throws RemoteFailure
     */
    public function listAt(string $raw): array;

    /**
     * Whether the server owns up to a file at a path that is sent as it is, from where the sign-in landed.
     *
     * @param  string  $raw  without control characters
     *
     * @throws RemoteFailure of the connection only
     */
    public function sees(string $raw): bool;

    /** @return list<string> the lines the server answered last; none where the protocol has no lines to show */
    public function answers(): array;
}
