<?php

declare(strict_types=1);

namespace App\Deployments;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\Person;
use App\Plans\Ways;
use App\Text\When;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Pagination\LengthAwarePaginator;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Collection;

/** Deployments as they are looked through: by site or client, how they stand, who began them and when. */
final readonly class DeploymentTable
{
    /** Ways to look at them, by what the address calls them. */
    public const ONLY = [
        '' => 'all',
        'plans' => 'plans that wait',
        'going' => 'going on',
        'live' => 'live',
        'but' => 'live, with something to mend',
        'failed' => 'failed or refused',
    ];

    private const EACH = 100;

    /** From so many uploads by hand to one site one after the other, they are one row that unfolds. */
    private const FOLDED_FROM = 3;

    private function __construct(
        public string $words,
        public string $only,
        public int $who,
        public ?CarbonImmutable $since,
        public ?CarbonImmutable $until,
    ) {
    }

    public static function fromRequest(Request $request): self
    {
        $only = (string) $request->query('only', '');

        return new self(
            trim(mb_substr((string) $request->query('q', ''), 0, 100)),
            isset(self::ONLY[$only]) ? $only : '',
            $request->integer('who'),
            self::day($request, 'since'),
            self::day($request, 'until'),
        );
    }

    public function isFiltered(): bool
    {
        return $this->words !== '' || $this->only !== '' || $this->who > 0 || $this->since !== null
            || $this->until !== null;
    }

    /** @param  'since'|'until'  $name */
    public function given(string $name): string
    {
        $day = $name === 'since' ? $this->since : $this->until;

        return $day === null ? '' : substr(When::field($day), 0, 10);
    }

    /** @return LengthAwarePaginator<int, Deployment> the newest first */
    public function rows(): LengthAwarePaginator
    {
        return $this->query()
            ->with([...Deployment::titled(), 'site.account.client', 'person'])
            ->latest('id')
            ->paginate(self::EACH)
            ->withQueryString();
    }

    /**
     * Uploads by hand to one site one after the other stand together.
     *
     * @param  iterable<Deployment>  $rows
     * @return list<non-empty-list<Deployment>> one is a row of its own, several are folded
     */
    public static function folded(iterable $rows): array
    {
        $groups = [];
        foreach ($rows as $run) {
            $last = array_key_last($groups);
            $isSmall = static fn (Deployment $one): bool => $one->kind === DeploymentKind::Files
                && $one->state === DeploymentState::Proven;
            $before = $last === null ? null : $groups[$last][0];
            if ($before !== null && $before->site_id === $run->site_id && $isSmall($before) && $isSmall($run)) {
                $groups[$last][] = $run;
            } else {
                $groups[] = [$run];
            }
        }
        $found = [];
        foreach ($groups as $group) {
            $found = count($group) < self::FOLDED_FROM
                ? [...$found, ...array_map(static fn (Deployment $run): array => [$run], $group)]
                : [...$found, $group];
        }

        return $found;
    }

    /** @return Collection<int, Person> who has begun any */
    public static function people(): Collection
    {
        return Person::whereIn('id', Deployment::select('person_id')->distinct())->orderBy('name')->get(['id', 'name']);
    }

    /** @return Builder<Deployment> */
    private function query(): Builder
    {
        $like = '%'.addcslashes($this->words, '%_\\').'%';

        return Deployment::query()
            ->when($this->words !== '', static fn (Builder $all) => $all->where(
                static fn (Builder $any) => $any
                    ->whereHas('site', static fn (Builder $site) => $site
                        ->where('domain', 'like', $like)
                        ->orWhereHas('client', static fn (Builder $client) => $client->where('name', 'like', $like))
                        ->orWhereHas(
                            'account.client',
                            static fn (Builder $client) => $client->where('name', 'like', $like),
                        ))
                    ->orWhereHas('package', static fn (Builder $package) => $package->where('name', 'like', $like)),
            ))
            ->when($this->who > 0, fn (Builder $all) => $all->where('person_id', $this->who))
            ->when($this->since !== null, fn (Builder $all) => $all->where('created_at', '>=', $this->since))
            ->when($this->until !== null, fn (Builder $all) => $all->where('created_at', '<', $this->until?->addDay()))
            ->when($this->states() !== null, fn (Builder $all) => $all->whereIn('state', $this->states() ?? []))
            ->when($this->only === 'but', static fn (Builder $all) => $all->where(
                static fn (Builder $any) => $any
                    ->whereRaw("JSON_LENGTH(found_live, '$.unanswered') > 0")
                    ->orWhereRaw("JSON_CONTAINS(found_live, '{\"public\": true}', '$.refusals')"),
            ));
    }

    /** @return list<DeploymentState>|null */
    private function states(): ?array
    {
        return match ($this->only) {
            'plans' => [DeploymentState::Planned, DeploymentState::Drafting, DeploymentState::NotPlanned],
            'going' => DeploymentState::GOING,
            'live', 'but' => [DeploymentState::Proven],
            'failed' => [
                DeploymentState::Refused,
                DeploymentState::PutBack,
                DeploymentState::PutBackUnproven,
                DeploymentState::Unfinished,
            ],
            default => null,
        };
    }

    private static function day(Request $request, string $name): ?CarbonImmutable
    {
        $given = (string) $request->query($name, '');

        return preg_match('/\A\d{4}-\d\d-\d\d\z/', $given) === 1 && strtotime($given) !== false
            ? When::typed("{$given}T00:00")
            : null;
    }
}
