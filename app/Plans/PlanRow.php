<?php

declare(strict_types=1);

namespace App\Plans;

use App\Models\Deployment;
use App\Models\DeploymentState;
use App\Text\Amount;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\Conflict;
use Cellarium\Core\Plan\PlanDirectory;
use Cellarium\Core\Plan\PlanItem;

/** One row of the plan's tree: a directory with what it sums up, or a file with all its sides. */
final readonly class PlanRow
{
    private const DEEPEST_SHOWN = 8;

    private const NOTHING = '—';

    /**
     * @param  string|null  $address  where visitors reach it
     * @param  array{string, string}  $deployed  size or files, and the time of a file; "" where not known
     * @param  array{string, string}  $live
     * @param  array{string, string}  $target
     * @param  list<string>  $sums  of a directory: "3 replaced"
     * @param  array<string, string>  $choices  what can be answered, by its value, in words
     * @param  string  $choice  what was answered; "" for nothing yet
     * @param  int  $questions  in a directory
     * @param  bool  $folds  whether it is a directory with anything in it
     * @param  bool  $isFound  whether it does not stand below the directory it lies in
     */
    private function __construct(
        public string $path,
        public int $depth,
        public bool $directory,
        public ?string $address,
        public array $deployed,
        public array $live,
        public array $target,
        public bool $isOpen = false,
        public array $sums = [],
        public string $tone = '',
        public string $change = '',
        public string $why = '',
        public string $mode = '',
        public string $conflict = '',
        public array $choices = [],
        public string $choice = '',
        public int $questions = 0,
        public bool $isFound = false,
        public bool $folds = false,
    ) {
    }

    public static function ofDirectory(
        PlanDirectory $directory,
        ?string $address,
        int $depth,
        bool $isOpen,
        bool $goesBack = false,
    ): self {
        $sums = [];
        foreach (Change::cases() as $change) {
            $count = $directory->changes[$change->value] ?? 0;
            $count === 0 || $sums[] = number_format($count)." {$change->label()}";
        }

        return new self(
            $directory->path,
            min(self::DEEPEST_SHOWN, $depth),
            true,
            $address,
            [self::files($directory->deployed), ''],
            [self::files($directory->live), ''],
            [self::files($directory->target), ''],
            $isOpen,
            $sums === [] && $directory->change === Change::Add ? ['made'] : $sums,
            mode: self::mode($directory->mode),
            choices: $directory->questions === 0 ? [] : [
                Choice::Theirs->value => 'Leave the one there',
                Choice::Ours->value => $goesBack ? 'Go back' : 'Put the new one',
            ],
            questions: $directory->questions,
            folds: ! $directory->isEmpty(),
        );
    }

    /**
     * @param  int|null  $depth  null where it was found by its name
     * @param  bool  $isLast  whether it is named last of all
     * @param  bool  $goesBack  whether the plan takes a deployment back
     */
    public static function ofFile(
        PlanItem $item,
        ?string $address,
        ?int $depth,
        bool $isLast,
        bool $goesBack = false,
    ): self {
        return new self(
            $item->path->toString(),
            min(self::DEEPEST_SHOWN, (int) $depth),
            false,
            $address,
            self::side($item->deployed),
            $item->conflict === Conflict::RemovedLive ? ['gone', ''] : self::side($item->live),
            self::side($item->target),
            tone: $item->change === Change::Asked ? 'now' : PlanTotals::tone($item->change),
            change: self::label($item).($isLast && $item->change->touches() ? ', last of all' : ''),
            why: $item->reason(),
            mode: self::mode($item->mode),
            conflict: $item->conflict?->label() ?? '',
            choices: self::choices($item, $goesBack),
            choice: self::choice($item),
            isFound: $depth === null,
        );
    }

    /** As it is written in the tree: a directory ends with a slash; what was found somewhere has its whole path. */
    public function shown(): string
    {
        $name = $this->isFound || $this->parent() === ''
            ? $this->path
            : substr($this->path, strlen($this->parent()) + 1);

        return $this->directory ? "$name/" : $name;
    }

    /** The directory it lies in; "" is the top. */
    public function parent(): string
    {
        return substr($this->path, 0, (int) strrpos($this->path, '/'));
    }

    /** What an answer given here is about. */
    public function scope(): string
    {
        return $this->directory ? "$this->path/" : $this->path;
    }

    /** In words, by how many sides there are. */
    public function look(): string
    {
        $there = array_filter(
            [$this->deployed, $this->live, $this->target],
            static fn (array $side): bool => $side[1] !== '',
        );

        return match (count($there)) {
            3 => 'Look at all three',
            2 => 'Look at both',
            default => 'Look at it',
        };
    }

    public function lookAt(Deployment $deployment): string
    {
        return "/deployments/$deployment->id/file?".http_build_query(['path' => $this->path]);
    }

    /** Whether something can be answered here now. */
    public function asks(?Deployment $deployment): bool
    {
        return $deployment?->state === DeploymentState::Planned && $this->choices !== [];
    }

    /**
     * @param  bool  $three  whether something was deployed before
     * @return array<string, array{string, string}>
     */
    public function sides(bool $three): array
    {
        return ($three ? ['deployed' => $this->deployed] : []) + ['live' => $this->live, 'target' => $this->target];
    }

    /** Whether a side is what makes it a question. */
    public function isOther(string $side): bool
    {
        return $side === 'live' && $this->conflict !== '';
    }

    /** @return array<string, string> */
    private static function choices(PlanItem $item, bool $goesBack): array
    {
        $choices = [];
        foreach ($item->conflict?->choices($item->target !== null) ?? [] as $choice) {
            $choices[$choice->value] = self::words($choice, $item, $goesBack);
        }

        return $choices;
    }

    private static function words(Choice $choice, PlanItem $item, bool $goesBack): string
    {
        return match (true) {
            $choice === Choice::Both => 'Both',
            $choice === Choice::Theirs && $item->conflict === Conflict::RemovedLive => 'Leave it away',
            $choice === Choice::Theirs => $item->target === null ? 'Leave it there' : 'Leave the one there',
            $goesBack => 'Go back',
            $item->target === null => 'Set aside',
            default => 'Put the new one',
        };
    }

    private static function choice(PlanItem $item): string
    {
        return match ($item->change) {
            Change::Asked => '',
            Change::Keep, Change::LeftAway => Choice::Theirs->value,
            default => $item->keepsBoth() ? Choice::Both->value : Choice::Ours->value,
        };
    }

    /** What is set; "" where the mode stays as it is. */
    private static function mode(?int $mode): string
    {
        return $mode === null ? '' : sprintf('mode %04o', $mode);
    }

    private static function label(PlanItem $item): string
    {
        return $item->change === Change::SetAside
            ? 'set aside '.config('cellarium.set_aside_days').' days'
            : $item->change->label();
    }

    private static function files(int $files): string
    {
        return $files === 0 ? self::NOTHING : Amount::files($files);
    }

    /** @return array{string, string} */
    private static function side(?ManifestEntry $entry): array
    {
        return $entry === null
            ? [self::NOTHING, '']
            : [Amount::bytes($entry->size), $entry->modified === null ? '' : gmdate('j M H:i', $entry->modified)];
    }
}
