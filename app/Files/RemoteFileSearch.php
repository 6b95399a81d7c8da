<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\DirectoryListing;
use App\Storage\RunLimits;
use Cellarium\Core\File\FileMatches;
use Cellarium\Core\File\FileQuery;
use Cellarium\Core\File\Finder;
use Cellarium\Core\Transfer\Cancelled;
use Cellarium\Core\Transfer\SurveyStopped;
use Cellarium\Core\Transfer\TransferFailed;
use Cellarium\Core\Transfer\TransferPool;

/** Looks for files at a host from a directory down, over several connections. */
final readonly class RemoteFileSearch
{
    public function __construct(private FileWorkers $workers)
    {
    }

    /**
     * @param  \Closure(FileMatches): void  $hear  told often, also while nothing comes; may throw Cancelled
     * @return FileMatches the same that were heard of
     *
     * @throws TransferFailed|SurveyStopped|Cancelled
     */
    public function find(FilePlace $place, FileQuery $fileQuery, \Closure $hear): FileMatches
    {
        $findings = new FileMatches;
        $this->workers->with(
            $place->account,
            static fn () => $hear($findings),
            static fn (TransferPool $pool, string $scratch): FileMatches => (new Finder(
                $pool,
                $scratch,
                $hear,
                RunLimits::survey(),
            ))->find($place->at, $fileQuery, $findings),
        );
        $seen = count(Listings::lists(DirectoryListing::forPath($place->account, $place->at)) ?? []);
        if ($findings->names === 0 && $seen > 0) {
            // As likely a server that lists nothing as a folder that was emptied since.
            $findings->unread[] = [$place->at->toString(), "nothing is listed, and $seen names were seen there before"];
        }

        return $findings;
    }
}
