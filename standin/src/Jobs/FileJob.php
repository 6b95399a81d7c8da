<?php

declare(strict_types=1);

namespace Cellarium\Standin\Jobs;

/** Something the host does with the files of an account by itself, while whoever asked for it looks on. */
final class FileJob
{
    public string $state = 'running';

    /** Files done, of how many; 0 while that is not known. */
    public int $done = 0;

    public int $total = 0;

    public ?string $message = null;

    /** @var list<string> of a move: what was said against each, "" where it is done */
    public array $refused = [];

    public function __construct(public readonly string $id, public readonly string $kind)
    {
    }

    public function end(?string $trouble): void
    {
        $this->state = $trouble === null ? 'done' : 'failed';
        $this->message = $trouble;
    }

    /** @return array<string, mixed> */
    public function shown(): array
    {
        return [
            'id' => $this->id,
            'kind' => $this->kind,
            'state' => $this->state,
            'done' => $this->done,
            'total' => $this->total,
            'message' => $this->message,
        ] + ($this->kind === 'move' ? ['refused' => $this->refused] : []);
    }
}
