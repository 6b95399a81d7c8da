<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;

/** One path of a plan with both sides' facts. */
final readonly class PlanItem
{
    /** @param  int|null  $mode  that is set, twelve bits; null where it stays, or is what the server gives */
    public function __construct(
        public RelativePath $path,
        public Change $change,
        public Why $why,
        public ?ManifestEntry $target,
        public ?ManifestEntry $live,
        public ?int $mode = null,
    ) {
    }

    public function isFile(): bool
    {
        return ($this->target ?? $this->live)?->isFile() ?? false;
    }

    /** Bytes that the change is about: what will be there, or what is taken away. */
    public function bytes(): int
    {
        return ($this->target ?? $this->live)->size ?? 0;
    }

    /**
     * @return array{
     *     path: string,
     *     change: string,
     *     why: string,
     *     target: array<string, mixed>|null,
     *     live: array<string, mixed>|null,
     *     mode: int|null,
     * }
     */
    public function toArray(): array
    {
        return [
            'path' => $this->path->toString(),
            'change' => $this->change->value,
            'why' => $this->why->value,
            'target' => $this->target?->toArray(),
            'live' => $this->live?->toArray(),
            'mode' => $this->mode,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            RelativePath::fromString($fields->text('path')),
            Change::from($fields->text('change')),
            Why::from($fields->text('why')),
            $fields->has('target') ? ManifestEntry::fromFields($fields->fields('target')) : null,
            $fields->has('live') ? ManifestEntry::fromFields($fields->fields('live')) : null,
            $fields->numberOrNull('mode'),
        );
    }
}
