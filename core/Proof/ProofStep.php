<?php

declare(strict_types=1);

namespace Cellarium\Core\Proof;

/** One piece of evidence. */
final readonly class ProofStep
{
    /**
     * @param  string|null  $next  what to do where it does not hold
     * @param  string  $name  of the step, one word
     * @param  string|null  $answer  what the server said, as it said it
     * @param  float|null  $at  seconds since 1970
     * @param  bool  $decided  false when something in between, not what was to be proven, kept it from holding
     */
    public function __construct(
        public bool $ok,
        public string $sentence,
        public ?string $next = null,
        public string $name = '',
        public ?string $answer = null,
        public ?float $at = null,
        public bool $decided = true,
    ) {
    }

    /** @return array{ok: bool, sentence: string, next: string|null, name: string, answer: string|null} */
    public function toArray(): array
    {
        return [
            'ok' => $this->ok,
            'sentence' => $this->sentence,
            'next' => $this->next,
            'name' => $this->name,
            'answer' => $this->answer,
        ];
    }
}
