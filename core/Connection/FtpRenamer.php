<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

use Cellarium\Core\Path\RemotePath;

/** Other names and copies over FTP. */
final class FtpRenamer
{
    /** Whether the server copies its files (SITE CPFR and CPTO); found out by asking it to. */
    private bool $copies = true;

    public function __construct(private readonly FtpSession $session)
    {
    }

    public function rename(RemotePath $from, RemotePath $to): void
    {
        $this->session->command(
            "renaming $from to $to",
            ["RNFR {$this->session->real($from)}", "RNTO {$this->session->real($to)}"],
            $from,
        );
    }

    /**
     * @param  list<array{RemotePath, RemotePath}>  $renames  from and to
     * @return list<string|null>
     */
    public function renameTogether(array $renames): array
    {
        $this->session->lead();
        $lines = [];
        foreach ($renames as [$from, $to]) {
            $lines[] = "RNFR {$this->session->real($from)}";
            $lines[] = "RNTO {$this->session->real($to)}";
        }
        // libcurl waits for one answer to each command. So all go as one; what follows it only reads the other answers,
        // and has its own still to come, which is why the connection is not used again.
        try {
            $this->session->command(
                "renaming {$renames[0][0]} and what goes with it",
                ['*'.implode("\r\n", $lines), ...array_fill(0, count($lines) - 1, '*NOOP')],
                RemotePath::root(),
            );
            $replies = $this->session->connection->replies();
        } finally {
            $this->session->connection->renew();
        }

        return FtpReplies::ofRenames($replies, count($renames));
    }

    public function copy(RemotePath $from, RemotePath $to): bool
    {
        // What follows SITE is taken apart at blanks and quotes by the one server that knows this, and put together
        // otherwise: "a  b" then means "a b", which may be another file.
        $isPlain = preg_match('/[\s"\'\\\\]/', $this->session->real($from).$this->session->real($to)) !== 1;
        if (! $this->copies || ! $isPlain) {
            return false;
        }
        try {
            $this->session->command(
                "copying $from to $to",
                ["SITE CPFR {$this->session->real($from)}", "SITE CPTO {$this->session->real($to)}"],
                $from,
            );
        } catch (RemoteFailure $failure) {
            if (preg_match('/\A50[0-4]\b/', (string) $failure->serverSaid) !== 1) {
                throw $failure;
            }

            return $this->copies = false;
        }

        return true;
    }
}
