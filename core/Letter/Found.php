<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

/** One fact of a letter and the piece of text it was read from. */
final readonly class Found
{
    /**
     * @param  int  $from  bytes from the beginning of the letter's text
     * @param  int  $length  bytes
     * @param  list<string>  $changes  what cleaning did to it
     * @param  string|null  $doubt  why it may be wrong
     * @param  string|null  $otherwise  the second best reading, where one comes close
     */
    public function __construct(
        public Fact $fact,
        #[\SensitiveParameter]
        public string $value,
        public int $from,
        public int $length,
        public array $changes = [],
        public ?string $doubt = null,
        #[\SensitiveParameter]
        public ?string $otherwise = null,
    ) {
    }

    public function doubted(string $why, #[\SensitiveParameter] ?string $otherwise = null): self
    {
        return new self(
            $this->fact,
            $this->value,
            $this->from,
            $this->length,
            $this->changes,
            $this->doubt ?? $why,
            $this->otherwise ?? $otherwise,
        );
    }

    /** @return array<string, mixed> a password does not show in dumps */
    public function __debugInfo(): array
    {
        return [
            'fact' => $this->fact,
            'value' => $this->fact === Fact::Password ? 'hidden' : $this->value,
            'from' => $this->from,
            'length' => $this->length,
        ];
    }
}
