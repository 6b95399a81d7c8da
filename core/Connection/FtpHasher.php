<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/** Hashes that an FTP server computes over its own files. */
final class FtpHasher
{
    /** How the server computes hashes, once it was asked; null where it does not. */
    private ?HashCommand $hashes = null;

    private bool $hashesAsked = false;

    public function __construct(private readonly FtpSession $session)
    {
    }

    public function hash(RemotePath $file): ?ServerHash
    {
        if (! $this->hashesAsked) {
            $this->session->command('asking what the server can do', ['*FEAT'], RemotePath::root());
            $this->hashes = HashCommand::offered($this->session->connection->replies());
            $this->hashesAsked = true;
        }
        $hashes = $this->hashes;
        if ($hashes === null) {
            return null;
        }
        $this->session->command(
            "asking for the hash of $file",
            [...$this->session->binary(), ...$hashes->lines($this->session->real($file))],
            $file->parent(),
        );
        $this->session->isBinaryNow();

        return $hashes->read((string) $this->session->connection->lastReply());
    }
}
