<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Json\JsonFields;

/** The backup that was taken before a change, and how it is known to be good. Times are Unix times. */
final readonly class SheetBackup
{
    /**
     * @param  int  $verifiedAt  when all of it was read back
     * @param  int|null  $rehearsedAt  when it was unpacked and its pages fetched; null for never
     */
    public function __construct(
        public int $number,
        public int $files,
        public int $bytes,
        public int $verifiedAt,
        public ?int $rehearsedAt = null,
    ) {
    }

    /** @return array<string, int|string|null> */
    public function toArray(): array
    {
        return [
            'number' => $this->number,
            'files' => $this->files,
            'bytes' => $this->bytes,
            'verified_at' => SheetTime::text($this->verifiedAt),
            'rehearsed_at' => SheetTime::textOrNull($this->rehearsedAt),
        ];
    }

    /** @throws \UnexpectedValueException */
    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->number('number'),
            $fields->number('files'),
            $fields->number('bytes'),
            SheetTime::read($fields, 'verified_at'),
            SheetTime::orNull($fields, 'rehearsed_at'),
        );
    }
}
