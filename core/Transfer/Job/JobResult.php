<?php

declare(strict_types=1);

namespace Cellarium\Core\Transfer\Job;

use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\EntryKind;

/** The result of a job that the server confirmed. */
final readonly class JobResult
{
    /**
     * @param  list<RemoteEntry>  $entries of a listing
     * @param  string|null  $sha256  of what was read, for a job that hashes; null where it was not given whole
     * @param  list<string>  $names  found by looking again
     * @param  bool  $modeRefused  whether a mode was to be set, and the server does not set it
     */
    public function __construct(
        public int $bytes = 0,
        public array $entries = [],
        public ?string $sha256 = null,
        public array $names = [],
        public bool $modeRefused = false,
    ) {
    }

    /**
     * @return array{
     *     bytes: int,
     *     sha256: string|null,
     *     names: list<string>,
     *     mode_refused: bool,
     *     entries: list<array{
     *         name: string,
     *         kind: string,
     *         size: int|null,
     *         modified: int|null,
     *         mode: int|null,
     *         exact: bool,
     *         nameable: bool,
     *     }>,
     * }
     */
    public function toArray(): array
    {
        return [
            'bytes' => $this->bytes,
            'sha256' => $this->sha256,
            'names' => $this->names,
            'mode_refused' => $this->modeRefused,
            'entries' => array_map(
                static fn (RemoteEntry $entry): array => [
                    'name' => $entry->name,
                    'kind' => $entry->kind->value,
                    'size' => $entry->size,
                    'modified' => $entry->modified,
                    'mode' => $entry->mode,
                    'exact' => $entry->exact,
                    'nameable' => $entry->isNameable,
                ],
                $this->entries,
            ),
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->number('bytes'),
            array_map(
                static fn (JsonFields $row): RemoteEntry => new RemoteEntry(
                    $row->text('name'),
                    EntryKind::from($row->text('kind')),
                    $row->numberOrNull('size'),
                    $row->numberOrNull('modified'),
                    $row->numberOrNull('mode'),
                    $row->flag('exact'),
                    isNameable: $row->flag('nameable'),
                ),
                $fields->each('entries'),
            ),
            $fields->textOrNull('sha256'),
            $fields->texts('names'),
            $fields->flag('mode_refused'),
        );
    }
}
