<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonFields;

/** The counts of a plan for one directory and all below it, and the place of its lines in the plan's text. */
final class PlanDirectory
{
    /** @var array<string, int> files by change; those there are */
    public array $changes = [];

    /** Files that are questions, answered or not. */
    public int $questions = 0;

    /** Files as the last deployment left them, on the server, and in the package. */
    public int $deployed = 0;

    public int $live = 0;

    public int $target = 0;

    /** What becomes of the directory itself; null where it is only named by what lies in it. */
    public ?Change $change = null;

    /** What mode it is given, twelve bits. */
    public ?int $mode = null;

    /**
     * @param  int  $at  where the first line of what lies in it begins, in bytes
     * @param  int  $ends  where the line after the last one begins
     */
    public function __construct(public readonly string $path, public int $at, public int $ends)
    {
    }

    public function count(PlanItem $item): void
    {
        $this->changes[$item->change->value] = ($this->changes[$item->change->value] ?? 0) + 1;
        $this->questions += $item->conflict === null ? 0 : 1;
        $this->deployed += $item->deployed === null ? 0 : 1;
        $this->live += $item->live === null ? 0 : 1;
        $this->target += $item->target === null ? 0 : 1;
    }

    /** Whether nothing lies in it. */
    public function isEmpty(): bool
    {
        return $this->at === $this->ends;
    }

    /** Files that a filter lets through. */
    public function matching(PlanFilter $filter): int
    {
        return match ($filter->change) {
            null => $filter->questions ? $this->questions : array_sum($this->changes),
            default => $this->changes[$filter->change->value] ?? 0,
        };
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'path' => $this->path,
            'at' => $this->at,
            'ends' => $this->ends,
            'changes' => $this->changes,
            'questions' => $this->questions,
            'sides' => [$this->deployed, $this->live, $this->target],
            'change' => $this->change?->value,
            'mode' => $this->mode,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        $directory = new self($fields->text('path'), $fields->number('at'), $fields->number('ends'));
        $changes = $fields->fields('changes');
        foreach ($changes->keys() as $change) {
            $directory->changes[$change] = $changes->number($change);
        }
        $directory->questions = $fields->number('questions');
        [$directory->deployed, $directory->live, $directory->target] = $fields->numbers('sides');
        $directory->change = $fields->has('change') ? Change::from($fields->text('change')) : null;
        $directory->mode = $fields->numberOrNull('mode');

        return $directory;
    }
}
