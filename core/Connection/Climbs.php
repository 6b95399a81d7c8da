<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** Where it can be tried to leave the login's directory upwards. */
interface Climbs
{
    /**
     * What the server shows after it was asked for the directory above the login's own.
     *
     * @return list<RemoteEntry>
     *
     * @throws RemoteFailure
     */
    public function listAbove(): array;
}
