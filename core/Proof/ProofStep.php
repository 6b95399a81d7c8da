<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

/** One piece of evidence. */
final readonly class ProofStep
{
    public function __construct(
        public bool $ok,
        public string $sentence,
        public ?string $next = null,
    ) {
    }

    /** @return array{ok: bool, sentence: string, next: string|null} */
    public function toArray(): array
    {
        return ['ok' => $this->ok, 'sentence' => $this->sentence, 'next' => $this->next];
    }
}
