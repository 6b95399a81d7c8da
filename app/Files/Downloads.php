<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\Connections;
use App\Models\Errand;
use App\Models\GuardedFile;
use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\RunLimits;
use App\Storage\Spool;
use App\Text\Amount;
use Cellarium\Core\Archive\ZipOut;
use Cellarium\Core\Archive\ZippedSize;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\File\SentAsZip;
use Cellarium\Core\File\WorkingCopy;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;
use Symfony\Component\HttpFoundation\HeaderUtils;

/**
 * Files of an account as an archive that a worker writes into the spool and that is sent while it comes; see SentAsZip.
 *
 * So no page asks a host, and a download that was broken off goes on for an hour.
 */
final readonly class Downloads
{
    /** One that nobody reads for so many seconds is not fetched any further; whoever was cut off may come back. */
    private const LEFT_SECONDS = 300.0;

    public function __construct(
        private Connections $connections,
        private FileWorkers $workers,
        private Spool $spool,
    ) {
    }

    /**
     * @param  list<ManifestEntry>  $chosen  as they were seen, paths from the login's root
     * @param  \Closure(): void  $untilCancelled  called often
     * @return array{file: string, size: int, named: string} its name in the spool, its bytes, the header
     *     Content-Disposition; the errand holds it from the moment at which the size is known
     *
     * @throws Problem|RemoteFailure|TransferFailed
     */
    public function fetch(Errand $errand, FilePlace $place, array $chosen, \Closure $untilCancelled): array
    {
        $name = Spool::newName();
        $goesOn = $this->whileWanted($name, $untilCancelled);

        return $this->workers->with(
            $place->account,
            $goesOn,
            function (TransferPool $pool, string $scratch) use ($errand, $place, $chosen, $name, $goesOn): array {
                $entries = $this->entries($place, $chosen, $pool);
                $copy = ($errand->given['work_on'] ?? false) ? self::copy($place, $entries) : null;
                $facts = [
                    'file' => $name,
                    'size' => self::length($entries, $copy),
                    'named' => self::named($place, $chosen),
                ];
                $this->record($place, $entries, $copy !== null);
                $this->spool->put(
                    $facts['size'],
                    function ($file) use ($errand, $place, $entries, $copy, $facts, $pool, $scratch, $goesOn): void {
                        // What is left out for somebody is known once it is here, and the size once all is.
                        GuardedFile::areShown() && $errand->update(['result' => $facts]);
                        $zip = self::zipInto($file);
                        $hidden = new HiddenFiles($place);
                        $sent = new SentAsZip($pool, $scratch, $zip, $goesOn, $hidden->leaveOut(...));
                        $sent->send($place->at, $entries, $copy);
                        self::texts($zip, $copy, $hidden);
                        $zip->finish();
                    },
                    $name,
                );

                return ['size' => (int) filesize((string) $this->spool->file($name))] + $facts;
            },
        );
    }

    /**
     * @param  \Closure(): void  $untilCancelled
     * @return \Closure(): void throws once nobody wants it any more
     */
    private function whileWanted(string $name, \Closure $untilCancelled): \Closure
    {
        $wanted = hrtime(true);

        return function () use ($name, $untilCancelled, &$wanted): void {
            $untilCancelled();
            // Who may not see all of it takes it when it is whole.
            if (! GuardedFile::areShown() || $this->spool->isRead($name)) {
                $wanted = hrtime(true);
            }
            if (hrtime(true) - $wanted > self::LEFT_SECONDS * 1e9) {
                throw new Problem('Nobody took this download any more, so it was stopped. Download it again.');
            }
        };
    }

    /**
     * @param  list<ManifestEntry>  $chosen
     * @return list<ManifestEntry> with all that lies in them, paths from the directory
     */
    private function entries(FilePlace $place, array $chosen, TransferPool $pool): array
    {
        $surveyor = new Surveyor($pool, RunLimits::survey());
        $remote = $this->connections->remote($place->account);
        $entries = [];
        foreach ($chosen as $entry) {
            $name = RelativePath::fromString($entry->path->name());
            if ($entry->kind !== EntryKind::Directory) {
                $entries[] = $this->now($remote, $place->at->join($name))->at($name);

                continue;
            }
            $entries[] = $entry->at($name);
            foreach ($surveyor->survey($place->at->join($name))->manifest->all() as $below) {
                // Links have no contents of their own.
                $isKept = $below->isFile() || $below->kind === EntryKind::Directory;
                $isKept && $entries[] = $below->at(RelativePath::fromString("$name/$below->path"));
            }
        }

        return $entries;
    }

    private function now(RemoteDirectory $remote, RemotePath $path): ManifestEntry
    {
        $found = $remote->stat($path);
        $entry = $found === null ? null : Surveyor::entry(RelativePath::fromString($path->name()), $found);

        return $entry?->isFile() === true
            ? $entry
            : throw new Problem("{$path->name()} is no file, or no longer there. Look at the folder again.");
    }

    /**
     * @param  list<ManifestEntry>  $entries
     * @return int bytes, of an archive that leaves nothing out
     */
    private static function length(array $entries, ?WorkingCopy $copy): int
    {
        $named = array_map(
            static fn (ManifestEntry $entry): array => $entry->isFile()
                ? [WireName::toWire((string) $entry->path), $entry->size]
                : [WireName::toWire((string) $entry->path).'/', 0],
            $entries,
        );
        $copy === null || $named[] = [WorkingCopy::NAME, strlen($copy->toText())];

        return ZipOut::length($named);
    }

    /**
     * @param  list<ManifestEntry>  $entries
     * @return WorkingCopy one that remembers what it held
     */
    private static function copy(FilePlace $place, array $entries): WorkingCopy
    {
        return WorkingCopy::fromEntries(
            $place->site->domain ?? $place->account->title(),
            $place->at,
            now()->getTimestamp(),
            $entries,
        );
    }

    /** @param  resource  $file */
    private static function zipInto($file): ZipOut
    {
        return new ZipOut(static function (string $bytes) use ($file): void {
            @fwrite($file, $bytes) === strlen($bytes) || throw new Problem(
                'There is no room on the disk of Cellarium any more. Make room there, then download it again.',
            );
        });
    }

    private static function texts(ZipOut $zip, ?WorkingCopy $copy, HiddenFiles $hidden): void
    {
        $texts = $copy === null ? [] : [WorkingCopy::NAME => $copy->toText()];
        $hidden->names() === [] || $texts['not-in-this-archive.txt'] = 'Passwords may stand in these files. They are '
            ."on the server, and not in this archive:\n\n".implode("\n", $hidden->names())."\n";
        foreach ($texts as $name => $text) {
            $zip->file(
                $name,
                $copy->at ?? now()->getTimestamp(),
                0644,
                ZippedSize::stored(strlen($text), crc32($text)),
                self::stream($text),
            );
        }
    }

    /** @return resource */
    private static function stream(string $text)
    {
        $stream = fopen('php://temp', 'w+b');
        assert($stream !== false);
        fwrite($stream, $text);
        rewind($stream);

        return $stream;
    }

    /** @param  list<ManifestEntry>  $chosen */
    private static function named(FilePlace $place, array $chosen): string
    {
        $name = match (true) {
            count($chosen) === 1 => $chosen[0]->path->name(),
            $place->at->depth() > 0 => $place->at->name(),
            default => $place->site->domain ?? $place->account->host,
        };
        $plain = (string) preg_replace('/[^A-Za-z0-9._-]+/', '-', $name);

        return HeaderUtils::makeDisposition(
            HeaderUtils::DISPOSITION_ATTACHMENT,
            str_replace(['/', '\\'], '-', WireName::isHolding($name) ? $plain : $name).'.zip',
            "$plain.zip",
        );
    }

    /** @param  list<ManifestEntry>  $entries */
    private function record(FilePlace $place, array $entries, bool $isToWorkOn): void
    {
        $files = count(array_filter($entries, static fn (ManifestEntry $entry): bool => $entry->isFile()));
        Record::write(
            RecordKind::FilesDownloaded,
            ($place->served()->domain ?? $place->account->title()).': '.Amount::files($files)." of $place->at "
                .($isToWorkOn ? 'downloaded to be worked on' : 'downloaded'),
            $place->served() ?? $place->account,
        );
    }
}
