<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Models\Backup;
use App\Models\BackupState;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Storage\ContentStore;
use ZipArchive;

/** A backup as one file to carry home: names as they are, with the times they had on the server. */
final readonly class BackupZip
{
    public function __construct(private BackupShelf $shelf, private ContentStore $contents)
    {
    }

    /**
     * @return string a file of ours, to be removed once it is sent
     *
     * @throws Problem when the backup is not whole
     */
    public function make(Backup $backup): string
    {
        $backup->state === BackupState::Verified || throw new Problem(
            'This backup was not finished, so there is nothing to download. Choose one that was read back.',
        );
        $file = $this->contents->incoming();
        $zip = new ZipArchive;
        $whole = false;
        try {
            $this->write($zip, $file, $backup);
            $whole = true;
        } finally {
            // Else what was begun is written as the object goes, and lies there looking whole.
            $whole || $this->letGo($zip, $file);
        }

        return $file;
    }

    private function letGo(ZipArchive $zip, string $file): void
    {
        try {
            $zip->unchangeAll();
            @$zip->close();
        } catch (\ValueError) {
            // It is closed already: what failed was its writing.
        }
        is_file($file) && unlink($file);
    }

    /** @throws Problem */
    private function write(ZipArchive $zip, string $file, Backup $backup): void
    {
        $zip->open($file, ZipArchive::CREATE | ZipArchive::OVERWRITE) === true || throw new Problem(
            'The archive could not be begun. Look at the room on the disk, then try again.',
        );
        foreach ($this->shelf->manifest((string) $backup->name)->all() as $entry) {
            $this->add($zip, $entry);
        }
        // Its warnings say what getStatusString() says.
        @$zip->close() || throw new Problem(
            "The archive could not be finished: {$zip->getStatusString()}. Look at the room on the disk, then try "
                .'again.',
        );
        chmod($file, 0600);
        $zip->open($file, ZipArchive::RDONLY | ZipArchive::CHECKCONS) === true || throw new Problem(
            'The archive is not whole after it was written. Look at the room on the disk, then try again.',
        );
        $zip->close();
    }

    private function add(ZipArchive $zip, ManifestEntry $entry): void
    {
        $path = $entry->path->toString();
        if ($entry->kind === EntryKind::Directory) {
            $zip->addEmptyDir($path);

            return;
        }
        if ($entry->kind !== EntryKind::File) {
            return; // Links and the like have no contents that were kept.
        }
        $isWhole = $entry->sha256 !== null && $this->contents->isIntact($entry->sha256, $entry->size);
        $isWhole || throw new Problem(
            "$path is damaged in the store, so the backup is not whole. Nothing was downloaded; take another backup of "
                .'the site, and see whether an earlier one is whole.',
        );
        $zip->addFile($this->contents->file((string) $entry->sha256), $path, flags: ZipArchive::FL_ENC_UTF_8);
        $entry->modified === null || $zip->setMtimeName($path, $entry->modified);
    }
}
