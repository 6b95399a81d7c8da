<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Manifest\Manifest;

/** Differences between the server now and the server that a plan was made for. */
final readonly class LiveChanges
{
    /**
     * @param  list<string>  $added  paths of files
     * @param  list<string>  $changed
     * @param  list<string>  $removed
     */
    private function __construct(public array $added, public array $changed, public array $removed)
    {
    }

    public static function since(Plan $plan, Manifest $live): self
    {
        $added = array_fill_keys(array_map(static fn ($file): string => (string) $file->path, $live->files()), true);
        $changed = [];
        $removed = [];
        foreach ($plan->items as $item) {
            if ($item->live?->isFile() !== true) {
                continue;
            }
            $path = $item->path->toString();
            $now = $live->get($path);
            unset($added[$path]);
            if ($now === null) {
                $removed[] = $path;
            } elseif (! $now->looksLike($item->live)) {
                $changed[] = $path;
            }
        }

        return new self(array_map(strval(...), array_keys($added)), $changed, $removed);
    }

    /** @return list<string> */
    public function paths(): array
    {
        return [...$this->changed, ...$this->removed, ...$this->added];
    }
}
