<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Mend;

/** The change by a mend to one file, or to one place in it. */
final readonly class MendChange
{
    /**
     * @param  string  $path  before
     * @param  string|null  $to  its path afterwards; null where it is left out
     * @param  int|null  $line  from 1, where it is about a place
     * @param  int|null  $offset  of that place, in bytes
     * @param  string|null  $before  that place as it was written
     * @param  string|null  $after  and as it is written then
     */
    public function __construct(
        public MendKind $kind,
        public string $path,
        public ?string $to,
        public ?int $line = null,
        public ?int $offset = null,
        public ?string $before = null,
        public ?string $after = null,
    ) {
    }

    /**
     * @return array{
     *     kind: string,
     *     path: string,
     *     to: string|null,
     *     line: int|null,
     *     before: string|null,
     *     after: string|null,
     * }
     */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind->value,
            'path' => $this->path,
            'to' => $this->to,
            'line' => $this->line,
            'before' => $this->before === null ? null : mb_scrub($this->before),
            'after' => $this->after === null ? null : mb_scrub($this->after),
        ];
    }
}
