<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

/** A backup that was brought back where nobody sees it, and was as it should be. */
final readonly class RehearsalResult
{
    /**
     * @param  int  $files  unpacked, hashed and the same
     * @param  int  $pages  a web server gave with the same bytes
     * @param  int  $ofPages  that it could have given
     * @param  int  $notRun  files that a server would run; they were not
     */
    public function __construct(
        public int $files,
        public int $bytes,
        public int $pages,
        public int $ofPages,
        public int $notRun,
        public float $seconds,
    ) {
    }

    /** @return array<string, int|float> */
    public function toArray(): array
    {
        return [
            'files' => $this->files,
            'bytes' => $this->bytes,
            'pages' => $this->pages,
            'of_pages' => $this->ofPages,
            'not_run' => $this->notRun,
            'seconds' => round($this->seconds, 2),
        ];
    }
}
