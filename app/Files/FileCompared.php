<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\Connections;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\File\NotText;
use Cellarium\Core\File\SideBySide;
use Cellarium\Core\File\TextFile;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** A text as it is on the server, beside what it said once. */
final readonly class FileCompared
{
    public function __construct(
        private Connections $connections,
        private KeptVersions $kept,
        private ContentStore $store,
    ) {
    }

    /**
     * @return array{version: KeptVersion, seen: string, texts: SideBySide|null, isSame: bool} what was seen of the
     *     file, see FileEntry::seenWord(); no texts where they are too long to be put side by side
     *
     * @throws Problem|RemoteFailure|NotText
     */
    public function of(FilePlace $place, RemotePath $file, string $sha256): array
    {
        $version = $this->kept->one($place, $file, $sha256)
            ?? throw new Problem('This version is no longer kept. Choose another in the folder.');
        $remote = $this->connections->remote($place->account);
        $found = $remote->stat($file) ?? throw new Problem("{$file->name()} is no longer there. Look at the folder.");
        $size = $found->size ?? 0;
        max($size, $version->size) <= TextFile::MOST || throw NotText::tooLarge(
            max($size, $version->size),
            TextFile::MOST,
        );
        $now = (string) stream_get_contents(WholeRead::of($remote, $file, $size));
        $then = $this->store->text($version->sha256);
        foreach ([$now, $then] as $bytes) {
            FileSecrets::mayBeSeen($place->account->id, $file, $bytes);
        }

        return [
            'version' => $version,
            'seen' => (new FileEntry(
                $file->name(),
                $found->kind,
                $found->size,
                $found->modified,
                $found->mode,
                $found->exact,
                $found->target,
            ))->seenWord(),
            'texts' => SideBySide::of(
                TextFile::fromBytes($now)->edited(),
                TextFile::fromBytes($then)->edited(),
            ),
            'isSame' => hash('sha256', $now) === $version->sha256,
        ];
    }
}
