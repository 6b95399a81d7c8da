<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonFields;

/** What a deployment would do to one document root; a value that can be printed, stored and carried out. */
final readonly class Plan
{
    /** @var list<PlanItem> ordered by path */
    public array $items;

    /** @param  list<PlanItem>  $items in any order */
    public function __construct(array $items)
    {
        usort($items, static fn (PlanItem $a, PlanItem $b): int => strcmp($a->path->toString(), $b->path->toString()));
        $this->items = $items;
    }

    /** @return list<PlanItem> */
    public function files(Change ...$changes): array
    {
        return $this->filtered(
            static fn (PlanItem $item): bool => $item->isFile() && in_array($item->change, $changes, true),
        );
    }

    /** @return list<PlanItem> directories to make, outer ones first */
    public function directoriesToMake(): array
    {
        return $this->filtered(static fn (PlanItem $item): bool => ! $item->isFile() && $item->change === Change::Add);
    }

    /** @return list<PlanItem> directories to remove once they are empty, inner ones first */
    public function directoriesToRemove(): array
    {
        return array_reverse(
            $this->filtered(
                static fn (PlanItem $item): bool => ! $item->isFile() && $item->change === Change::SetAside,
            ),
        );
    }

    /**
     * Files to send in the order visitors should see them: assets, then pages, the start page last of all.
     *
     * @param  list<string>  $startPages
     * @return array{assets: list<PlanItem>, pages: list<PlanItem>, start: list<PlanItem>}
     */
    public function waves(array $startPages): array
    {
        $waves = ['assets' => [], 'pages' => [], 'start' => []];
        foreach ($this->files(Change::Add, Change::Replace) as $item) {
            $wave = match (true) {
                in_array($item->path->toString(), $startPages, true) => 'start',
                in_array($item->path->extension(), ['html', 'htm', 'xhtml', 'php', 'phtml'], true) => 'pages',
                default => 'assets',
            };
            $waves[$wave][] = $item;
        }

        return $waves;
    }

    /** @return list<PlanItem> what is given a mode */
    public function modesToSet(): array
    {
        return $this->filtered(static fn (PlanItem $item): bool => $item->mode !== null);
    }

    public function bytesToSend(): int
    {
        return array_sum(
            array_map(static fn (PlanItem $item): int => $item->bytes(), $this->files(Change::Add, Change::Replace)),
        );
    }

    public function changesNothing(): bool
    {
        $changes = static fn (PlanItem $item): bool => $item->change->touches() || $item->mode !== null;

        return $this->filtered($changes) === [];
    }

    /** @return array<string, array{files: int, bytes: int}> by change; directories do not count */
    public function counts(): array
    {
        $counts = [];
        foreach (Change::cases() as $change) {
            $files = $this->files($change);
            $counts[$change->value] = [
                'files' => count($files),
                'bytes' => array_sum(array_map(static fn (PlanItem $item): int => $item->bytes(), $files)),
            ];
        }

        return $counts;
    }

    /**
     * Paths that one side spells in capitals and the other does not: two files to a server, one to many people.
     *
     * @return list<array{string, string}> in the target, on the server
     */
    public function caseClashes(): array
    {
        $target = [];
        foreach ($this->items as $item) {
            if ($item->change === Change::Add) {
                $target[mb_strtolower($item->path->toString())] = $item->path->toString();
            }
        }
        $clashes = [];
        foreach ($this->items as $item) {
            $wanted = $target[mb_strtolower($item->path->toString())] ?? null;
            if ($item->live !== null && $wanted !== null && $wanted !== $item->path->toString()) {
                $clashes[] = [$wanted, $item->path->toString()];
            }
        }

        return $clashes;
    }

    public function toJson(): string
    {
        return json_encode(
            ['items' => array_map(static fn (PlanItem $item): array => $item->toArray(), $this->items)],
            JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
        );
    }

    public static function fromJson(string $json): self
    {
        return new self(array_map(PlanItem::fromFields(...), JsonFields::fromJson($json)->each('items')));
    }

    /**
     * @param  \Closure(PlanItem): bool  $test
     * @return list<PlanItem>
     */
    private function filtered(\Closure $test): array
    {
        return array_values(array_filter($this->items, $test));
    }
}
