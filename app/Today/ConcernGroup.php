<?php

declare(strict_types=1);

namespace App\Today;

/** Concerns of one kind, together: how many, the worst of them, and one action for all where that is safe. */
final readonly class ConcernGroup
{
    /** So many of one kind stand by themselves; from one more on they are one card. */
    private const SINGLE = 3;

    /** So many are shown when a kind is opened. */
    private const MOST = 200;

    /** @param  list<Concern>  $concerns  the worst first, never empty */
    public function __construct(
        public ConcernKind $kind,
        public array $concerns,
    ) {
    }

    public function isFolded(): bool
    {
        return count($this->concerns) > self::SINGLE;
    }

    /** @return list<Concern> */
    public function worst(): array
    {
        return array_slice($this->concerns, 0, self::SINGLE);
    }

    /** @return list<Concern> */
    public function shown(): array
    {
        return array_slice($this->concerns, 0, self::MOST);
    }

    public function notShown(): int
    {
        return max(0, count($this->concerns) - self::MOST);
    }

    public function urgency(): Urgency
    {
        return $this->concerns[0]->urgency;
    }

    /** Whether all are called the same, so that the group's title says it for them. */
    public function isOfOneTitle(): bool
    {
        return count(
            array_unique(array_map(static fn (Concern $concern): string => $concern->title, $this->concerns)),
        ) === 1;
    }

    public function title(): string
    {
        return $this->kind->title();
    }

    /**
     * Taking backups only reads; closing many is looked at once more before it is done.
     *
     * @return array{label: string, url: string, method: string}|null
     */
    public function actionForAll(): ?array
    {
        $all = count($this->concerns);

        return match ($this->kind) {
            ConcernKind::NoBackup, ConcernKind::LateBackup => [
                'label' => "Back up all $all",
                'url' => '/backups/overdue',
                'method' => 'POST',
            ],
            ConcernKind::OpenUser => [
                'label' => 'Choose which to close',
                'url' => '/ftp-users?only=overdue',
                'method' => 'GET',
            ],
            ConcernKind::Connection => [
                'label' => 'See them all',
                'url' => '/accounts?only=unreached',
                'method' => 'GET',
            ],
            ConcernKind::Asked => [
                'label' => 'See them all',
                'url' => '/requests',
                'method' => 'GET',
            ],
            ConcernKind::ByHand => [
                'label' => 'See them all',
                'url' => '/ftp-users?only=waiting',
                'method' => 'GET',
            ],
            default => null,
        };
    }
}
