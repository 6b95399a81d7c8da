<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonLines;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\PageNames;

/**
 * The changes that a deployment would make to one document root; a value that can be printed, stored and carried out.
 */
final readonly class Plan
{
    /** @var list<PlanItem> ordered by path */
    public array $items;

    /** @param  iterable<PlanItem>  $items in any order; of two with one path the last counts */
    public function __construct(iterable $items)
    {
        $byPath = [];
        foreach ($items as $item) {
            $byPath[$item->path->toString()] = $item;
        }
        ksort($byPath, SORT_STRING);
        $this->items = array_values($byPath);
    }

    /** What shall be there, as the plan was made for it. */
    public function target(): Manifest
    {
        $entries = [];
        foreach ($this->items as $item) {
            if ($item->target !== null && $item->why !== Why::TheirsBeside) {
                $entries[] = $item->target;
            }
        }

        return Manifest::fromEntries($entries);
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
                PageNames::isPage($item->path) => 'pages',
                default => 'assets',
            };
            $waves[$wave][] = $item;
        }

        return $waves;
    }

    /** @return list<PlanItem> what changed on the server since the last deployment, answered or not */
    public function questions(): array
    {
        return $this->filtered(static fn (PlanItem $item): bool => $item->conflict !== null);
    }

    /** What was on the server when it was made. */
    public function live(): Manifest
    {
        return Manifest::fromEntries(
            (function (): \Generator {
                foreach ($this->items as $item) {
                    if ($item->live !== null) {
                        yield $item->live;
                    }
                }
            })(),
        );
    }

    /** @return list<PlanItem> what nobody has answered; nothing starts before that */
    public function openQuestions(): array
    {
        return $this->filtered(static fn (PlanItem $item): bool => $item->change === Change::Asked);
    }

    /**
     * What the next plan is to be compared with: where this one did something, what the server holds now; else what was
     * left there before, for an answer holds for one plan only.
     *
     * @param  Manifest  $after  what the server holds now
     * @param  Manifest|null  $left  what was left by the run before this one; null where there was none
     */
    public function leaves(Manifest $after, ?Manifest $left): Manifest
    {
        if ($left === null) {
            return $after;
        }
        $gone = [];
        $back = [];
        foreach ($this->files(Change::Keep, Change::LeftAway) as $item) {
            $now = $after->get($item->path);
            $before = $left->get($item->path);
            if ($before === null) {
                $gone[] = $item->path->toString();
            } elseif ($now === null || $before->differsFrom($now) !== false) {
                $back[] = $before;
            }
        }

        return $gone === [] && $back === [] ? $after : $after->without($gone)->with($back);
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

    /**
     * @return array<string, array{files: int, bytes: int, was: int}> by change, with the bytes that are on the server
     *     before; directories do not count
     */
    public function counts(): array
    {
        $counts = [];
        foreach (Change::cases() as $change) {
            $files = $this->files($change);
            $counts[$change->value] = [
                'files' => count($files),
                'bytes' => array_sum(array_map(static fn (PlanItem $item): int => $item->bytes(), $files)),
                'was' => array_sum(array_map(static fn (PlanItem $item): int => $item->live->size ?? 0, $files)),
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
            if ($item->change === Change::Add || $item->conflict === Conflict::OtherCase) {
                $target[mb_strtolower($item->path->toString())] = $item->path->toString();
            }
        }
        $clashes = [];
        foreach ($this->items as $item) {
            $wanted = $target[mb_strtolower($item->path->toString())] ?? null;
            $stays = $item->live !== null && $item->change !== Change::SetAside;
            if ($stays && $wanted !== null && $wanted !== $item->path->toString()) {
                $clashes[] = [$wanted, $item->path->toString()];
            }
        }

        return $clashes;
    }

    public static function fromText(string $text): self
    {
        return new self(
            (static function () use ($text): \Generator {
                foreach (JsonLines::decode($text) as $fields) {
                    yield PlanItem::fromFields($fields);
                }
            })(),
        );
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
