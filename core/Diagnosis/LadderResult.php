<?php

declare(strict_types=1);

namespace Cellarium\Core\Diagnosis;

use Cellarium\Core\Connection\Pin;
use Cellarium\Core\Connection\TlsUse;

/** Facts learned on the way up, filled while a ladder is climbed. */
final class LadderResult
{
    /** @var list<Rung> */
    public array $rungs = [];

    /** Milliseconds from a short command to its answer. */
    public ?int $latencyMs = null;

    /** @var list<string> as the server names them */
    public array $features = [];

    /** The address that was connected to. */
    public ?string $address = null;

    /** Who the server showed itself to be. */
    public ?Pin $identity = null;

    /** What does with this server, for FTP over TLS; null before a transfer was tried and for SFTP. */
    public ?TlsUse $tls = null;

    public function holds(): bool
    {
        return $this->rungs !== [] && $this->rungs[count($this->rungs) - 1]->ok;
    }

    public function broken(): ?Rung
    {
        $last = $this->rungs === [] ? null : $this->rungs[count($this->rungs) - 1];

        return $last === null || $last->ok ? null : $last;
    }
}
