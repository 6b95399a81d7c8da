<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use Cellarium\Core\Manifest\Manifest;

/**
 * A backup that has been taken and whose stored copy was read back.
 *
 * Not every file need have been read from the server this time: where the listing shows no difference, its contents
 * are those of an earlier reading, or what was sent there.
 */
final readonly class Backup
{
    public string $name;

    public Manifest $manifest;

    /**
     * @param  int  $fetchedFiles  how many were read from the server this time
     * @param  int  $fetchedBytes  bytes
     * @param  int  $takenOverFiles  how many were taken from an earlier reading
     * @param  int|null  $takenOverSince  the oldest of these readings, seconds since 1970; null without one
     * @param  list<string>  $changedMeanwhile  paths that changed while they were read, and were read again
     * @param  list<string>  $skipped  paths that lie there and are not in it, since the protocol cannot name them
     */
    public function __construct(
        public VerifiedBackup $verified,
        public int $fetchedFiles,
        public int $fetchedBytes,
        public int $takenOverFiles = 0,
        public ?int $takenOverSince = null,
        public array $changedMeanwhile = [],
        public array $skipped = [],
    ) {
        $this->name = $verified->name;
        $this->manifest = $verified->manifest;
    }

    /** @param  list<string>  $skipped */
    public function without(array $skipped): self
    {
        return new self(
            $this->verified,
            $this->fetchedFiles,
            $this->fetchedBytes,
            $this->takenOverFiles,
            $this->takenOverSince,
            $this->changedMeanwhile,
            $skipped,
        );
    }
}
