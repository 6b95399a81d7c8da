<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Json\JsonFields;

/** The subject of a sheet: one deployment, or all that happened between two moments. */
final readonly class SheetCover
{
    /**
     * @param  int  $from  Unix time
     * @param  int  $until  Unix time, not before
     * @param  string  $zone  time zone its times are shown in, of the IANA database
     * @param  int|null  $deployment  its number; null for all between the two
     */
    public function __construct(
        public int $from,
        public int $until,
        public string $zone,
        public ?int $deployment = null,
    ) {
        $until >= $from || throw new \InvalidArgumentException('A sheet ends no earlier than it begins.');
        @timezone_open($zone) !== false
            || throw new \InvalidArgumentException("There is no time zone $zone.");
    }

    public function covers(int $moment): bool
    {
        return $moment >= $this->from && $moment <= $this->until;
    }

    /** @return array<string, int|string|null> */
    public function toArray(): array
    {
        return [
            'from' => SheetTime::text($this->from),
            'until' => SheetTime::text($this->until),
            'time_zone' => $this->zone,
            'deployment' => $this->deployment,
        ];
    }

    /** @throws \UnexpectedValueException */
    public static function fromFields(JsonFields $fields): self
    {
        try {
            return new self(
                SheetTime::read($fields, 'from'),
                SheetTime::read($fields, 'until'),
                $fields->text('time_zone'),
                $fields->numberOrNull('deployment'),
            );
        } catch (\InvalidArgumentException $wrong) {
            throw new \UnexpectedValueException($wrong->getMessage(), previous: $wrong);
        }
    }
}
