<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

/** The space used in an account at every step of a deployment. The backup is kept here and takes no room there. */
final readonly class Room
{
    /** @param  non-empty-list<RoomStep>  $steps */
    private function __construct(public array $steps, public ?int $limit)
    {
    }

    /**
     * All that is sent lies beside what it replaces, until names are given.
     *
     * @param  array<string, array{files: int, bytes: int, was: int}>  $counts  of the plan
     * @param  int  $used  bytes in the account now
     * @param  int|null  $limit  bytes it may hold; null where the host does not say
     */
    public static function fileByFile(array $counts, int $used, ?int $limit): self
    {
        $sent = $counts[Change::Add->value]['bytes'] + $counts[Change::Replace->value]['bytes'];
        $renamed = $used + $sent - $counts[Change::Replace->value]['was'];

        return self::steps($limit, [
            'now' => $used,
            'backup' => $used,
            'sent beside' => $used + $sent,
            'renamed' => $renamed,
            'afterwards' => $renamed - $counts[Change::SetAside->value]['was'],
        ]);
    }

    /**
     * A whole tree lies beside the document root until the new version is proven; an archive of it, where one is sent,
     * lies there until it is unpacked.
     *
     * @param  array<string, array{files: int, bytes: int, was: int}>  $counts  of the plan
     * @param  int  $used  bytes in the account now
     * @param  int|null  $limit  bytes it may hold; null where the host does not say
     */
    public static function fromCost(WayCost $cost, array $counts, int $used, ?int $limit): self
    {
        $afterwards = self::fileByFile($counts, $used, null)->steps[4]->bytes;

        return match ($cost->way) {
            Way::FileByFile => self::fileByFile($counts, $used, $limit),
            Way::Swap => self::steps($limit, [
                'now' => $used,
                'backup' => $used,
                'tree laid' => $used + $cost->bytes,
                'swapped' => $used + $cost->bytes,
                'afterwards' => $afterwards,
            ]),
            Way::Unpack => self::steps($limit, [
                'now' => $used,
                'archive sent' => $used + $cost->bytes,
                'unpacked' => $used + 2 * $cost->bytes,
                'swapped' => $used + $cost->bytes,
                'afterwards' => $afterwards,
            ]),
        };
    }

    /** The first step that does not fit; null where all do, or nobody knows. */
    public function firstShort(): ?RoomStep
    {
        foreach ($this->steps as $step) {
            if ($step->short > 0) {
                return $step;
            }
        }

        return null;
    }

    public function most(): int
    {
        return max(array_map(static fn (RoomStep $step): int => $step->bytes, $this->steps));
    }

    /** @param  non-empty-array<string, int>  $bytes  used at each step, by its name */
    private static function steps(?int $limit, array $bytes): self
    {
        $steps = [];
        foreach ($bytes as $name => $used) {
            $steps[] = new RoomStep($name, $used, $limit === null ? 0 : max(0, $used - $limit));
        }

        return new self($steps, $limit);
    }
}
