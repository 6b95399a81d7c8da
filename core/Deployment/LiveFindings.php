<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Json\JsonFields;

/** Findings about a run whose bytes are proven: they undo nothing, and is said with its state. */
final readonly class LiveFindings
{
    /**
     * @param  list<UnansweredReference>  $unanswered
     * @param  int  $notAsked  further addresses that changed pages ask for
     * @param  list<RefusalProof>  $refusals  of what was sent and is not meant for visitors
     * @param  list<string>  $listed  paths of directories that visitors get as a list of files; "" is the top
     * @param  list<HeldCopy>  $held  the longest first
     * @param  bool  $asksHeld  whether it was asked for how long browsers hold what was replaced
     */
    public function __construct(
        public array $unanswered = [],
        public int $notAsked = 0,
        public array $refusals = [],
        public array $listed = [],
        public array $held = [],
        public bool $asksHeld = false,
    ) {
    }

    /** @return list<RefusalProof> */
    public function public(): array
    {
        return array_values(array_filter($this->refusals, static fn (RefusalProof $one): bool => $one->isPublic));
    }

    /** What the state of the run says besides; null where there is nothing to say. */
    public function but(): ?string
    {
        $public = count($this->public());
        $missing = count($this->unanswered);
        $parts = [
            ...$public === 0 ? [] : [$public === 1
                ? '1 file is public that should not be'
                : "$public files are public that should not be"],
            ...$missing === 0 ? [] : ['its pages ask for '.($missing === 1
                ? '1 file that is not there'
                : "$missing files that are not there")],
        ];

        return $parts === [] ? null : implode(', ', $parts);
    }

    /**
     * @return array{
     *     version: int,
     *     unanswered: list<array<string, mixed>>,
     *     not_asked: int,
     *     refusals: list<array<string, mixed>>,
     *     listed: list<string>,
     *     held: list<array<string, mixed>>,
     *     asks_held: bool,
     * }
     */
    public function toArray(): array
    {
        return [
            'version' => 1,
            'unanswered' => array_map(
                static fn (UnansweredReference $one): array => $one->toArray(),
                $this->unanswered,
            ),
            'not_asked' => $this->notAsked,
            'refusals' => array_map(static fn (RefusalProof $one): array => $one->toArray(), $this->refusals),
            'listed' => $this->listed,
            'held' => array_map(static fn (HeldCopy $one): array => $one->toArray(), $this->held),
            'asks_held' => $this->asksHeld,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            array_map(UnansweredReference::fromFields(...), $fields->each('unanswered')),
            $fields->number('not_asked'),
            array_map(RefusalProof::fromFields(...), $fields->each('refusals')),
            $fields->texts('listed'),
            array_map(HeldCopy::fromFields(...), $fields->each('held')),
            $fields->flag('asks_held'),
        );
    }
}
