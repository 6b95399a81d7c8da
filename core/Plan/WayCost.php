<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Pace\Pace;

/** The cost of one way to replace for one plan, or the reason that bars it. */
final readonly class WayCost
{
    /**
     * @param  int  $files  that are sent, or laid beside the document root
     * @param  int  $bytes  of them
     * @param  int  $moves  files and directories that move over from the old tree at the last moment
     * @param  string|null  $barred  half a sentence; null where it can be gone
     */
    public function __construct(
        public Way $way,
        public int $files,
        public int $bytes,
        public int $moves = 0,
        public ?string $barred = null,
    ) {
    }

    /** How many files go over the wire, one after the other. */
    public function filesOverTheWire(): int
    {
        return $this->way === Way::Unpack ? 1 : $this->files;
    }

    /** What it costs in round trips and bytes together, in bytes. */
    public function work(): int
    {
        return $this->bytes + Pace::BYTES_A_FILE * $this->filesOverTheWire();
    }

    /** @return array{way: string, files: int, bytes: int, moves: int, barred: string|null} */
    public function toArray(): array
    {
        return [
            'way' => $this->way->value,
            'files' => $this->files,
            'bytes' => $this->bytes,
            'moves' => $this->moves,
            'barred' => $this->barred,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            Way::from($fields->text('way')),
            $fields->number('files'),
            $fields->number('bytes'),
            $fields->number('moves'),
            $fields->textOrNull('barred'),
        );
    }
}
