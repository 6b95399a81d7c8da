<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Path\RemotePath;

/** The contents of a directory when it was listed; hashes are not known yet. */
final readonly class Survey
{
    /**
     * @param  array<string, list<RemotePath>>  $temporary  files on their way in, by the run that lays them down
     * @param  list<string>  $skipped  paths below the directory that lie there and that the protocol cannot name; see
     *     WireName for how they are written
     */
    public function __construct(
        public Manifest $manifest,
        public array $temporary = [],
        public array $skipped = [],
    ) {
    }

    /** @return list<RemotePath> what one run has laid down; what others have is theirs */
    public function temporaryOf(string $run): array
    {
        return $this->temporary[$run] ?? [];
    }
}
