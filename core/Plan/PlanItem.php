<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;

/** One path of a plan with the facts of all its sides. */
final readonly class PlanItem
{
    /**
     * @param  int|null  $mode  that is set, twelve bits; null where it stays, or is what the server gives
     * @param  ManifestEntry|null  $deployed  as the last deployment left it; null where there was none, or it was
     *     not there
     * @param  Conflict|null  $conflict  what makes it a question, answered or not
     */
    public function __construct(
        public RelativePath $path,
        public Change $change,
        public Why $why,
        public ?ManifestEntry $target,
        public ?ManifestEntry $live,
        public ?int $mode = null,
        public ?ManifestEntry $deployed = null,
        public ?Conflict $conflict = null,
    ) {
    }

    public function isFile(): bool
    {
        return ($this->target ?? $this->live)?->isFile() ?? false;
    }

    /** Whether it was answered that what is on the server stays too, under a name of its own. */
    public function keepsBoth(): bool
    {
        return $this->why === Why::BothKept;
    }

    /** Bytes that the change is about: what will be there, or what is taken away. */
    public function bytes(): int
    {
        return ($this->target ?? $this->live)->size ?? 0;
    }

    /** What it is told apart by, or what it rests on; "" where the change alone says it all. */
    public function reason(): string
    {
        return match (true) {
            $this->why !== Why::InPackage || ! $this->isFile() => $this->why->sentence(),
            $this->change === Change::Add => 'not there before',
            $this->change === Change::Same => '',
            $this->target?->size !== $this->live?->size => 'of another size',
            default => 'the same size, other contents',
        };
    }

    /** @return array<string, mixed> without what is null; the path first */
    public function toArray(): array
    {
        $fields = ['path' => $this->path->toString(), 'change' => $this->change->value, 'why' => $this->why->value];
        $this->mode === null || $fields['mode'] = $this->mode;
        $this->conflict === null || $fields['conflict'] = $this->conflict->value;
        $this->target === null || $fields['target'] = $this->target->toList();
        $this->live === null || $fields['live'] = $this->live->toList();
        if ($this->deployed !== null) {
            $fields['deployed'] = $this->deployed == $this->live ? [] : $this->deployed->toList();
        }

        return $fields;
    }

    public static function fromFields(JsonFields $fields): self
    {
        $path = RelativePath::fromString($fields->text('path'));
        $side = static fn (string $name): ?ManifestEntry => $fields->has($name)
            ? ManifestEntry::fromList($path, $fields->fields($name))
            : null;
        $live = $side('live');

        return new self(
            $path,
            Change::from($fields->text('change')),
            Why::from($fields->text('why')),
            $side('target'),
            $live,
            $fields->numberOrNull('mode'),
            // Mostly nothing has changed since, which is written as an empty list.
            $fields->has('deployed') && $fields->fields('deployed')->keys() === [] ? $live : $side('deployed'),
            $fields->has('conflict') ? Conflict::from($fields->text('conflict')) : null,
        );
    }
}
