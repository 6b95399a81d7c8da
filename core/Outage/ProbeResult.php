<?php

declare(strict_types=1);

namespace Cellarium\Core\Outage;

use Cellarium\Core\Json\JsonFields;

/** One answer of an address. */
final readonly class ProbeResult
{
    /** A site that asks for a password, or for fewer questions, is there. */
    private const THERE = [401, 429];

    /**
     * @param  int  $begun  in milliseconds of any one clock
     * @param  int  $status  of HTTP (RFC 9110); 0 for no answer
     * @param  string  $failure  why there was none; "" where there was one
     */
    public function __construct(
        public int $begun,
        public int $ended,
        public int $status,
        public string $failure = '',
    ) {
    }

    public function findsASite(): bool
    {
        return ($this->status >= 200 && $this->status < 400) || in_array($this->status, self::THERE, true);
    }

    public function words(): string
    {
        return $this->status === 0 ? $this->failure : "answered $this->status";
    }

    /** @return array{begun: int, ended: int, status: int, failure: string} */
    public function toArray(): array
    {
        return [
            'begun' => $this->begun,
            'ended' => $this->ended,
            'status' => $this->status,
            'failure' => $this->failure,
        ];
    }

    /** @throws \UnexpectedValueException for anything else than toArray() gives */
    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->number('begun'),
            $fields->number('ended'),
            $fields->number('status'),
            $fields->text('failure'),
        );
    }
}
