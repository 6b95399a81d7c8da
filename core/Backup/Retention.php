<?php

declare(strict_types=1);

namespace Cellarium\Core\Backup;

use DateTimeZone;

/**
 * The rule for keeping backups of a site: of the last so many hours, days, weeks, months and years that have any, the
 * newest of each. Counted are those that have one, so that a time without backups costs none of the earlier ones.
 */
final readonly class Retention
{
    /**
     * @param  int<0, max>  $hourly
     * @param  int<0, max>  $daily
     * @param  int<0, max>  $weekly  weeks as ISO 8601 has them
     * @param  int<0, max>  $monthly
     * @param  int<0, max>  $yearly
     * @param  DateTimeZone  $zone  whose calendar it is
     */
    public function __construct(
        public int $hourly,
        public int $daily,
        public int $weekly,
        public int $monthly,
        public int $yearly,
        public DateTimeZone $zone,
    ) {
    }

    /**
     * @param  list<HeldBackup>  $backups  of one site, in any order
     * @return list<RetentionDecision> newest first
     */
    public function decide(array $backups): array
    {
        usort($backups, static fn (HeldBackup $one, HeldBackup $other): int => [$other->takenAt, $other->id]
            <=> [$one->takenAt, $one->id]);
        $reasons = [];
        $isSmall = static fn (HeldBackup $backup): bool => $backup->isOfSmallChange;
        // What was taken before a small change has only what is left over.
        $byRank = [
            ...array_filter($backups, static fn (HeldBackup $backup): bool => ! $isSmall($backup)),
            ...array_filter($backups, $isSmall),
        ];
        foreach ($this->numbers() as $period => $number) {
            $seen = [];
            foreach ($byRank as $backup) {
                $key = $backup->takenAt->setTimezone($this->zone)->format(Period::from($period)->format());
                if (! isset($seen[$key]) && count($seen) < $number) {
                    $reasons[$backup->id][] = Period::from($period)->keeps();
                }
                $seen[$key] = true;
            }
        }
        $decisions = [];
        foreach ($backups as $index => $backup) {
            $decisions[] = new RetentionDecision($backup, [
                ...$index === 0 ? [count($backups) === 1 ? KeptBecause::OnlyOne : KeptBecause::Newest] : [],
                ...$backup->protections(),
                ...$reasons[$backup->id] ?? [],
            ]);
        }

        return $decisions;
    }

    /** @return array<string, int> by the value of Period */
    public function numbers(): array
    {
        return [
            Period::Hour->value => $this->hourly,
            Period::Day->value => $this->daily,
            Period::Week->value => $this->weekly,
            Period::Month->value => $this->monthly,
            Period::Year->value => $this->yearly,
        ];
    }
}
