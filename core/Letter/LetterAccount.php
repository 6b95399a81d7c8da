<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;

/** One account as a letter tells it. */
final readonly class LetterAccount
{
    /**
     * @param  array<string, Found>  $found by fact
     * @param  array<string, string>  $said by fact: what the letter says instead of a value, "sent separately"
     */
    public function __construct(
        public array $found,
        public array $said = [],
    ) {
    }

    public function value(Fact $fact): ?string
    {
        return ($this->found[$fact->value] ?? null)?->value;
    }

    public function protocol(): ?Protocol
    {
        return Protocol::tryFrom((string) $this->value(Fact::Protocol));
    }

    /** The port named, else the protocol's own. */
    public function port(): ?int
    {
        $named = $this->value(Fact::Port);

        return $named === null ? $this->protocol()?->defaultPort() : (int) $named;
    }

    public function password(): ?Secret
    {
        $text = $this->value(Fact::Password);

        return $text === null ? null : new Secret($text);
    }

    /** @return array<string, string> why, by fact: what is doubtful, and what an account needs and was not found */
    public function unsure(): array
    {
        $unsure = [];
        foreach ($this->found as $name => $found) {
            $found->doubt === null ?: $unsure[$name] = $found->doubt;
        }
        foreach ([Fact::Host, Fact::Protocol, Fact::Login, Fact::Password] as $needed) {
            isset($this->found[$needed->value])
            ?: ($unsure[$needed->value] = isset($this->said[$needed->value])
                ? "the letter says: {$this->said[$needed->value]}"
                : 'not found in the letter');
        }

        return $unsure;
    }

    /** @return list<Fact> what the letter does not say */
    public function missing(): array
    {
        return array_values(
            array_filter(
                [Fact::Host, Fact::Protocol, Fact::Login, Fact::Password, Fact::Directory, Fact::Domain],
                fn (Fact $fact): bool => ! isset($this->found[$fact->value]),
            ),
        );
    }

    /** @return list<string> */
    public function changes(): array
    {
        $changes = [];
        foreach ($this->found as $name => $found) {
            foreach ($found->changes as $change) {
                $changes[] = "$name: $change";
            }
        }

        return $changes;
    }
}
