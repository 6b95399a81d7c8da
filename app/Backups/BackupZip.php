<?php

declare(strict_types=1);

namespace App\Backups;

use App\Failure\Problem;
use App\Models\Backup;
use App\Models\BackupState;
use App\Models\GuardedFile;
use Cellarium\Core\Archive\ByteRange;
use Cellarium\Core\Archive\RangeSent;
use Cellarium\Core\Backup\BackupArchive;
use Cellarium\Core\Backup\BackupShelf;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\SensitiveContent;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Storage\StoreFailure;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** A backup as one file to carry home, sent while it is read from the store. */
final readonly class BackupZip
{
    private const NOT_IN_IT = 'not-in-this-archive.txt';

    public function __construct(private BackupShelf $shelf, private ContentStore $contents)
    {
    }

    /**
     * @param  list<string>  $paths  of files, and of folders with all below them; none for everything
     * @param  string  $range  the header Range, for a download that goes on; "" for all of it
     * @param  string  $ifRange  the header If-Range
     *
     * @throws Problem when the backup is not whole
     */
    public function response(
        Backup $backup,
        array $paths = [],
        string $range = '',
        string $ifRange = '',
    ): StreamedResponse {
        $backup->state === BackupState::Verified || throw new Problem(
            'This backup was not finished, so there is nothing to download. Choose one that was read back.',
        );
        $manifest = $this->shelf->manifest((string) $backup->name);
        try {
            $shown = $this->shown(
                $backup,
                $paths === [] ? self::withDatabases($backup, $manifest) : $manifest->chosen($paths),
            );
            $archive = BackupArchive::fromManifest($shown, $this->contents);
        } catch (StoreFailure $failure) {
            throw new Problem(
                "{$failure->getMessage()} So the backup is not whole, and nothing was downloaded; take another backup "
                    .'of the site, and see whether an earlier one is whole.',
            );
        }

        // The same backup gives the same archive, to the byte, so that what was broken off can go on.
        $tag = '"'.hash('sha256', $shown->toText()).'"';
        $length = $archive->length();
        try {
            $asked = ByteRange::asked($range, $ifRange, $tag, $length);
        } catch (\OutOfRangeException) {
            return new StreamedResponse(null, 416, ['Content-Range' => "bytes */$length"]);
        }
        $response = response()->streamDownload(
            static fn () => self::send($archive, $asked),
            "{$backup->site->domain}-{$backup->created_at->format('Y-m-d-Hi')}.zip",
            [
                'Content-Type' => 'application/zip',
                'Content-Length' => (string) ($asked?->bytes() ?? $length),
                'Accept-Ranges' => 'bytes',
                'ETag' => $tag,
            ],
        );
        if ($asked !== null) {
            $response->setStatusCode(206);
            $response->headers->set('Content-Range', $asked->header());
        }

        return $response;
    }

    private static function send(BackupArchive $archive, ?ByteRange $asked): void
    {
        $out = static function (string $bytes): void {
            echo $bytes;
            flush();
        };
        try {
            $archive->send($asked === null ? $out : $asked->through($out));
        } catch (RangeSent) {
            return;
        }
    }

    /**
     * All of it for those who may see passwords; for others without the files in which some may stand, and with a list
     * of these.
     *
     * @throws StoreFailure
     */
    private function shown(Backup $backup, Manifest $manifest): Manifest
    {
        if (GuardedFile::areShown()) {
            return $manifest;
        }
        $hidden = [];
        foreach ($manifest->files() as $file) {
            $isHidden = GuardedFile::isOneOf(
                $backup->site->account_id,
                $backup->rootPath()->join($file->path),
                $this->contents->text((string) $file->sha256, SensitiveContent::LOOKED_AT),
            );
            $isHidden && $hidden[] = $file->path->toString();
        }
        if ($hidden === []) {
            return $manifest;
        }
        $text = "Passwords may stand in these files. They are in the backup, and not in this archive:\n\n"
            .implode("\n", $hidden)."\n";
        $note = $this->contents->put([$text]);
        $name = self::NOT_IN_IT;
        while ($manifest->get($name) !== null) {
            $name = "_$name";
        }

        return $manifest->without($hidden)->with([new ManifestEntry(
            RelativePath::fromString($name),
            EntryKind::File,
            $note->size,
            sha256: $note->sha256,
        )]);
    }

    /** Beside the files of the same moment, under a name that none of them has. */
    private static function withDatabases(Backup $backup, Manifest $manifest): Manifest
    {
        $dumps = [];
        foreach ($backup->databases ?? [] as $database) {
            $name = "database-{$database['name']}";
            while ($manifest->get("$name.sql") !== null) {
                $name .= '-';
            }
            $dumps[] = new ManifestEntry(
                RelativePath::fromString("$name.sql"),
                EntryKind::File,
                $database['bytes'],
                sha256: $database['sha256'],
            );
        }

        return $manifest->with($dumps);
    }
}
