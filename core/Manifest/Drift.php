<?php

declare(strict_types=1);

namespace Cellarium\Core\Manifest;

/** Differences between two looks at the same directory, but for what we did ourselves in between. */
final readonly class Drift
{
    /**
     * @param  array<string, array{kind: string, modified: int|null}>  $files  "added", "changed" or "removed", by path
     */
    private function __construct(public array $files)
    {
    }

    /** @param  array<string, mixed>  $ours  what is left out, by path */
    public static function between(Manifest $before, Manifest $after, array $ours = []): self
    {
        $files = [];
        foreach ($after->files() as $entry) {
            $path = $entry->path->toString();
            $earlier = $before->get($path);
            // Where neither hash nor size and time tell, nothing is said to have changed.
            $kind = match (true) {
                isset($ours[$path]) => null,
                $earlier === null => 'added',
                $entry->differsFrom($earlier) === true => 'changed',
                default => null,
            };
            $kind === null || $files[$path] = ['kind' => $kind, 'modified' => $entry->modified];
        }
        foreach ($before->files() as $entry) {
            $path = $entry->path->toString();
            if ($after->get($path) === null && ! isset($ours[$path])) {
                $files[$path] = ['kind' => 'removed', 'modified' => null];
            }
        }

        return new self($files);
    }

    /** When the newest of it was changed by the server's clock, seconds since 1970; null where no file tells. */
    public function newest(): ?int
    {
        $times = array_filter(array_column($this->files, 'modified'), static fn (?int $at): bool => $at !== null);

        return $times === [] ? null : max($times);
    }
}
