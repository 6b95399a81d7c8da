<?php

declare(strict_types=1);

namespace Cellarium\Core\Diagnosis;

/** One change of an account that is likely to make a broken rung hold; a person decides on it. */
final readonly class Remedy
{
    /**
     * @param  string  $change  "address", "port", "protocol", "login" or "identity"
     * @param  string  $value  what to put there
     */
    public function __construct(
        public string $change,
        public string $value,
    ) {
    }

    /** @return array{change: string, value: string} */
    public function toArray(): array
    {
        return ['change' => $this->change, 'value' => $this->value];
    }
}
