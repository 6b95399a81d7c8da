<?php

declare(strict_types=1);

namespace App\Errands;

use App\Models\ErrandState;

/** The outcome of an errand that was carried out. */
final readonly class ErrandResult
{
    /**
     * @param  string  $words  for whoever waits; '' where the page they are led to says it
     * @param  string|null  $back  page that they are led to, where it is another than the one they came from
     * @param  array<string, mixed>|null  $result  kept encrypted, for later pages
     * @param  bool  $isRefused  what was asked for cannot be done as it was given
     * @param  bool  $isForgotten  what was given with it is needed no more
     */
    public function __construct(
        public string $words,
        public ?string $back = null,
        public ?array $result = null,
        public bool $isRefused = false,
        public bool $isForgotten = false,
    ) {
    }

    /** @return array<string, mixed> columns of the errand */
    public function toColumns(): array
    {
        return [
            'state' => $this->isRefused ? ErrandState::Failed : ErrandState::Done,
            'words' => $this->words,
        ]
            + ($this->back === null ? [] : ['back' => $this->back])
            + ($this->result === null ? [] : ['result' => $this->result])
            + ($this->isForgotten ? ['given' => []] : []);
    }
}
