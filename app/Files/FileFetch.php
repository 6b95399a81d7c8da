<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Account;
use App\Storage\Spool;
use App\Text\Amount;
use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;

/** Reads one file of a server whole, to be looked at by a page: a worker does, since no page asks a host itself. */
final readonly class FileFetch
{
    public function __construct(private Connections $connections, private Spool $spool)
    {
    }

    /**
     * @param  int  $most  bytes that it may have
     * @param  bool  $isText  whether it is kept sealed
     * @return array{file: string, size: int, seen: string} its name in the spool; see FileEntry::seenWord()
     *
     * @throws Problem|RemoteFailure
     */
    public function fetch(Account $account, RemotePath $path, int $most, bool $isText): array
    {
        $name = $path->name();
        $remote = $this->connections->remote($account);
        $found = $remote->stat($path);
        if ($found?->kind !== EntryKind::File) {
            throw new Problem("$name is no file, or no longer there. Look at the folder again.");
        }
        $size = $found->size ?? 0;
        $size <= $most || throw new Problem(
            "$name has ".Amount::bytes($size).', which is more than is shown here. Download it.',
        );
        $whole = static fn (int $read): int => $read === $size ? $read : throw RemoteFailure::while(
            "reading $path",
            FailureReason::Incomplete,
            "listed with $size bytes, $read came",
        );
        if ($isText) {
            $bytes = fopen('php://temp', 'w+b') ?: throw new \RuntimeException('No memory could be opened.');
            $whole($remote->read($path, $bytes, $size));
            $file = $this->spool->putSealed((string) stream_get_contents($bytes, offset: 0));
        } else {
            $file = $this->spool->put($size, static fn ($to): int => $whole($remote->read($path, $to, $size)));
        }

        return ['file' => $file, 'size' => $size, 'seen' => self::seenWord($path, $found)];
    }

    private static function seenWord(RemotePath $path, RemoteEntry $found): string
    {
        $entry = new FileEntry(
            $path->name(),
            $found->kind,
            $found->size,
            $found->modified,
            $found->mode,
            $found->exact,
            $found->target,
        );

        return $entry->seenWord();
    }
}
