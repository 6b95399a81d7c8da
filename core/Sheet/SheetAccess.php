<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Json\JsonFields;

/** A login that worked at the host, and until when. Times are Unix times. */
final readonly class SheetAccess
{
    /**
     * @param  string  $purpose  what it was for; "" where nobody said
     * @param  string  $reaches  the directory it lands in
     * @param  string  $by  who opened it; "" where it was found at the host
     * @param  int|null  $closedAt  null while it is open
     * @param  int|null  $reachProvenAt  when it was proven to reach that and nothing else
     * @param  int|null  $refusalProvenAt  when it was proven to be refused, after it was closed
     * @param  bool  $isAccount  whether it is the hosting account's own login; it is known here since it was opened
     */
    public function __construct(
        public string $login,
        public string $purpose,
        public string $reaches,
        public string $by,
        public int $openedAt,
        public ?int $closedAt = null,
        public ?int $reachProvenAt = null,
        public ?int $refusalProvenAt = null,
        public bool $isAccount = false,
    ) {
    }

    public function isOpen(): bool
    {
        return $this->closedAt === null;
    }

    /** What is proven of it, in words. */
    public function proof(): string
    {
        return match (true) {
            $this->isAccount => $this->isOpen() ? 'in use' : 'no longer in use here',
            $this->closedAt !== null && $this->refusalProvenAt !== null => 'closed, refused when tried',
            $this->closedAt !== null => 'closed; not proven to be refused',
            $this->reachProvenAt !== null => 'open, proven to reach that and nothing else',
            default => 'open; what it reaches is not proven',
        };
    }

    /** @return array<string, string|bool|null> */
    public function toArray(): array
    {
        return [
            'login' => $this->login,
            'purpose' => $this->purpose,
            'reaches' => $this->reaches,
            'by' => $this->by,
            'opened_at' => SheetTime::text($this->openedAt),
            'closed_at' => SheetTime::textOrNull($this->closedAt),
            'reach_proven_at' => SheetTime::textOrNull($this->reachProvenAt),
            'refusal_proven_at' => SheetTime::textOrNull($this->refusalProvenAt),
            'account' => $this->isAccount,
        ];
    }

    /** @throws \UnexpectedValueException */
    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('login'),
            $fields->text('purpose'),
            $fields->text('reaches'),
            $fields->text('by'),
            SheetTime::read($fields, 'opened_at'),
            SheetTime::orNull($fields, 'closed_at'),
            SheetTime::orNull($fields, 'reach_proven_at'),
            SheetTime::orNull($fields, 'refusal_proven_at'),
            $fields->flag('account'),
        );
    }
}
