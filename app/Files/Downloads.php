<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Hosting\AskingHosts;
use App\Hosting\Connections;
use App\Hosting\HostShare;
use App\Models\GuardedFile;
use App\Models\RecordKind;
use App\Record\Record;
use App\Storage\RunLimits;
use App\Text\Amount;
use Cellarium\Core\Archive\ZipOut;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\File\SentAsZip;
use Cellarium\Core\File\WorkingCopy;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\SensitiveContent;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;
use Cellarium\Core\Transfer\SequentialPool;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferPool;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Files of an account as an archive that is sent while it is read; see SentAsZip. */
final readonly class Downloads
{
    public function __construct(
        private Connections $connections,
        private FileWorkers $workers,
        private AskingHosts $hosts,
    ) {
    }

    /**
     * @param  list<ManifestEntry>  $chosen  as they were seen, paths from the login's root
     * @param  bool  $isToWorkOn  whether it remembers what it held, see WorkingCopy
     *
     * @throws Problem|RemoteFailure before the first byte
     */
    public function zip(FilePlace $place, array $chosen, bool $isToWorkOn): StreamedResponse
    {
        $chosen === [] && throw new Problem('Nothing was chosen. Tick one or more files first.');
        $this->hosts->beginTransfer();
        $room = HostShare::ofTransfers()->take($place->account->host) ?? throw new Problem(
            "Too many downloads go on already, of {$place->account->host} or in all. Nothing was fetched; download it "
                .'once one of them is done.',
        );
        $remote = $this->connections->remote($place->account);
        $entries = $this->entries($remote, $place, $chosen);
        $copy = $isToWorkOn ? WorkingCopy::of(
            $place->site->domain ?? $place->account->title(),
            $place->at,
            now()->getTimestamp(),
            $entries,
        ) : null;
        $named = array_map(
            static fn (ManifestEntry $entry): array => $entry->isFile()
                ? [WireName::toWire((string) $entry->path), $entry->size]
                : [WireName::toWire((string) $entry->path).'/', 0],
            $entries,
        );
        $copy === null || $named[] = [WorkingCopy::NAME, strlen($copy->toText())];
        $this->record($place, $entries, $isToWorkOn);

        return new StreamedResponse(function () use ($place, $entries, $copy, $room): void {
            $this->send($place, $entries, $copy);
            array_map(fclose(...), $room);
        }, 200, [
            'Content-Type' => 'application/zip',
            'Content-Disposition' => self::named($place, $chosen),
        ] + (GuardedFile::areShown() ? ['Content-Length' => (string) ZipOut::length($named)] : []));
    }

    /**
     * @param  list<ManifestEntry>  $chosen
     * @return list<ManifestEntry> with all that lies in them, paths from the directory
     */
    private function entries(RemoteDirectory $remote, FilePlace $place, array $chosen): array
    {
        $surveyor = new Surveyor(new SequentialPool($remote), RunLimits::survey());
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

    /** @param  list<ManifestEntry>  $entries */
    private function send(FilePlace $place, array $entries, ?WorkingCopy $copy): void
    {
        /** @var list<string> $hidden */
        $hidden = [];
        // Whoever leaves is noticed between two files, so that connections and files of ours are put away.
        ignore_user_abort(true);
        $zip = new ZipOut(static function (string $bytes): void {
            echo $bytes;
            flush();
        });
        $isTaken = $this->workers->with(
            $place->account,
            static fn (): null => null,
            static fn (TransferPool $pool, string $scratch): bool => (new SentAsZip(
                $pool,
                $scratch,
                $zip,
                static fn (): bool => connection_aborted() === 0,
                GuardedFile::areShown() ? null : static function (ManifestEntry $entry, string $local) use (
                    $place,
                    &$hidden,
                ): bool {
                    $isHidden = FileSecrets::areHidden(
                        $place->account->id,
                        $place->at->join($entry->path),
                        (string) file_get_contents($local, length: SensitiveContent::LOOKED_AT),
                    );
                    $isHidden && $hidden[] = $entry->path->toString();

                    return $isHidden;
                },
            ))->send($place->at, $entries, $copy),
        );
        if (! $isTaken) {
            return;
        }
        $texts = $copy === null ? [] : [WorkingCopy::NAME => $copy->toText()];
        count($hidden) === 0 || $texts['not-in-this-archive.txt'] = 'Passwords may stand in these files. They are on '
            ."the server, and not in this archive:\n\n".implode("\n", $hidden)."\n";
        foreach ($texts as $name => $text) {
            $zip->file(
                $name,
                $copy->at ?? now()->getTimestamp(),
                0644,
                strlen($text),
                crc32($text),
                self::stream($text),
            );
        }
        $zip->finish();
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
