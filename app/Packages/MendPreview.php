<?php

declare(strict_types=1);

namespace App\Packages;

use Cellarium\Core\Package\Mend\MendChange;
use Cellarium\Core\Package\Mend\MendPlan;
use Cellarium\Core\Words\Count;

/** A difference to look at before it is made: by file, with what stays undone. */
final readonly class MendPreview
{
    /** Of all changes; what is more is counted. */
    private const MOST = 400;

    /** @var array<string, list<MendChange>> by file, of those that change within */
    public array $within;

    /** @var list<MendChange> files that are renamed or left out */
    public array $files;

    public int $notShown;

    public int $places;

    public function __construct(public MendPlan $plan)
    {
        $within = [];
        $files = [];
        foreach (array_slice($plan->changes, 0, self::MOST) as $change) {
            if ($change->line === null) {
                $files[] = $change;
            } else {
                $within[$change->path][] = $change;
            }
        }
        $this->within = $within;
        $this->files = $files;
        $this->notShown = max(0, count($plan->changes) - self::MOST);
        $this->places = count(array_filter(
            $plan->changes,
            static fn (MendChange $change): bool => $change->line !== null,
        ));
    }

    public function isEmpty(): bool
    {
        return $this->plan->changes === [];
    }

    /** @return string "12 places in 5 files, 3 files left out" */
    public function inWords(): string
    {
        $left = count(array_filter($this->plan->changes, static fn (MendChange $change): bool => $change->to === null));
        $moved = count($this->plan->changes) - $this->places - $left;

        return implode(', ', array_filter([
            $this->places === 0 ? '' : Count::words($this->places, 'place').' written anew',
            $moved === 0 ? '' : Count::words($moved, 'file').' with another name',
            $left === 0 ? '' : Count::words($left, 'file').' left out',
        ]));
    }
}
