<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use Cellarium\Core\File\NotText;
use Cellarium\Core\File\SideBySide;
use Cellarium\Core\File\TextFile;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Storage\ContentStore;

/** A text as it is on the server, beside what it said once. */
final readonly class FileCompared
{
    public function __construct(private KeptVersions $kept, private ContentStore $store)
    {
    }

    /**
     * @param  string  $now  its bytes
     * @param  string  $seen  what was seen of it, see FileEntry::seenWord()
     * @return array{version: KeptVersion, seen: string, texts: SideBySide|null, isSame: bool} no texts where they are
     *     too long to be put side by side
     *
     * @throws Problem|NotText
     */
    public function of(FilePlace $place, RemotePath $file, string $sha256, string $now, string $seen): array
    {
        $version = $this->version($place, $file, $sha256);
        $version->size <= TextFile::MOST || throw NotText::tooLarge($version->size, TextFile::MOST);
        $then = $this->store->text($version->sha256);
        foreach ([$now, $then] as $bytes) {
            FileSecrets::mayBeSeen($place->account->id, $file, $bytes);
        }

        return [
            'version' => $version,
            'seen' => $seen,
            'texts' => SideBySide::fromTexts(TextFile::fromBytes($now)->edited(), TextFile::fromBytes($then)->edited()),
            'isSame' => hash('sha256', $now) === $version->sha256,
        ];
    }

    /** @throws Problem */
    public function version(FilePlace $place, RemotePath $file, string $sha256): KeptVersion
    {
        return $this->kept->one($place, $file, $sha256)
            ?? throw new Problem('This version is no longer kept. Choose another in the folder.');
    }
}
