<?php

declare(strict_types=1);

namespace App\Files;

use App\Failure\Problem;
use App\Storage\RunLimits;
use App\Text\Amount;
use Cellarium\Core\File\FileSteps;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Storage\ContentStore;
use Cellarium\Core\Transfer\Job\Job;
use Cellarium\Core\Transfer\Job\JobResult;
use Cellarium\Core\Transfer\Job\KeepFile;
use Cellarium\Core\Transfer\Surveyor;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/** Fetches chosen files and folders of a host, so that they can be brought to another site. */
final readonly class RemoteCollector
{
    public function __construct(private FileWorkers $workers, private ContentStore $store)
    {
    }

    /**
     * @param  list<ManifestEntry>  $chosen  as they were seen, paths from the login's root
     * @param  \Closure(): mixed  $beat  called often; may throw Cancelled
     * @return Manifest of files, paths from the directory, contents in the store; without times, they are new there
     *
     * @throws Problem|TransferFailed where one of them cannot be fetched
     */
    public function fetch(FilePlace $place, array $chosen, \Closure $beat): Manifest
    {
        return $this->workers->with(
            $place->account,
            $beat,
            fn (TransferPool $pool): Manifest => Manifest::fromEntries($this->fetched(
                $place,
                $this->listed($place, $chosen, $pool),
                $pool,
            )),
        );
    }

    /**
     * @param  list<ManifestEntry>  $chosen
     * @return list<ManifestEntry> files, paths from the directory
     */
    private function listed(FilePlace $place, array $chosen, TransferPool $pool): array
    {
        $files = [];
        foreach ($chosen as $entry) {
            $name = RelativePath::fromString($entry->path->name());
            if ($entry->kind !== EntryKind::Directory) {
                $files[] = $entry->at($name);

                continue;
            }
            $inside = (new Surveyor($pool, RunLimits::survey()))->survey($place->at->join($name))->manifest;
            $left = FileSteps::left($inside);
            $left === [] || throw new Problem(sprintf(
                '%s holds %s that are links, which cannot be brought elsewhere: %s. Nothing was touched.',
                $name,
                Amount::files(count($left)),
                $left[0]->path,
            ));
            foreach ($inside->files() as $below) {
                $files[] = $below->at(RelativePath::fromString("$name/$below->path"));
            }
        }

        return $files;
    }

    /**
     * @param  list<ManifestEntry>  $files
     * @return list<ManifestEntry>
     */
    private function fetched(FilePlace $place, array $files, TransferPool $pool): array
    {
        $fetched = [];
        $byPath = array_column(array_map(
            static fn (ManifestEntry $file): array => [(string) $file->path, $file],
            $files,
        ), 1, 0);
        $jobs = array_map(static fn (ManifestEntry $file): Job => new KeepFile(
            $place->at->join($file->path),
            $file->size,
            (string) $file->path,
        ), $files);
        $this->store->begin();
        $pool->run($jobs, static function (Job $job, JobResult $result) use ($byPath, &$fetched): void {
            $file = $byPath[$job->subject];
            $fetched[] = new ManifestEntry(
                $file->path,
                EntryKind::File,
                $result->bytes,
                null,
                $file->mode,
                $result->sha256,
            );
        });

        return $fetched;
    }
}
