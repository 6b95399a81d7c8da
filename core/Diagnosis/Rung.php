<?php

declare(strict_types=1);

namespace Cellarium\Core\Diagnosis;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\Pin;
use Cellarium\Core\Connection\TlsUse;

/** One step of connecting: what was seen, and where it broke, why and what to try. */
final readonly class Rung
{
    /**
     * @param  string  $name  "name", "port", "greeting", "encryption", "sign-in", "data", "listing",
     *                        "transfers" or "document roots"
     * @param  string  $evidence  what was seen, one sentence without its full stop
     * @param  string|null  $cause  the likely cause, for a rung that broke or that needs a remark
     * @param  Remedy|null  $remedy  what could be changed in the account at once
     * @param  Pin|null  $identity  what the server showed, for the person to compare
     */
    private function __construct(
        public string $name,
        public bool $ok,
        public string $evidence,
        public ?string $cause = null,
        public ?string $next = null,
        public ?Remedy $remedy = null,
        public ?Pin $identity = null,
        public ?FailureReason $reason = null,
    ) {
    }

    public static function holds(string $name, string $evidence, ?string $remark = null, ?Pin $identity = null): self
    {
        return new self($name, true, $evidence, $remark, null, null, $identity);
    }

    /** The same, with a word on how TLS has to be spoken where that is not as usual. */
    public function remarking(TlsUse $tls): self
    {
        return ! $this->ok || $tls === TlsUse::Resuming
            ? $this
            : self::holds(
                $this->name,
                "$this->evidence ({$tls->sentence()})",
                $this->cause,
                $this->identity,
            );
    }

    public static function broke(
        string $name,
        string $evidence,
        FailureReason $reason,
        ?string $cause = null,
        ?string $next = null,
        ?Remedy $remedy = null,
        ?Pin $identity = null,
    ): self {
        return new self(
            $name,
            false,
            $evidence,
            $cause ?? ucfirst($reason->sentence()),
            $next ?? $reason->nextStep(),
            $remedy,
            $identity,
            $reason,
        );
    }

    /**
     * @return array{
     *     name: string,
     *     ok: bool,
     *     evidence: string,
     *     cause: string|null,
     *     next: string|null,
     *     remedy: array{change: string, value: string}|null,
     *     identity: array{fingerprint: string, key: string}|null,
     *     reason: string|null,
     * }
     */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'ok' => $this->ok,
            'evidence' => $this->evidence,
            'cause' => $this->cause,
            'next' => $this->next,
            'remedy' => $this->remedy?->toArray(),
            'identity' => $this->identity?->toArray(),
            'reason' => $this->reason?->value,
        ];
    }
}
