<?php

declare(strict_types=1);

namespace App\Accounts;

use Cellarium\Core\Connection\FailureReason;

/** One rung of a ladder as it is shown: what was seen, and what would mend it. */
final readonly class RungView
{
    private const LABELS = [
        'address' => 'Use this address',
        'port' => 'Use this port',
        'protocol' => 'Change the protocol',
        'login' => 'Use the whole login',
        'identity' => 'I have compared it: accept',
    ];

    public bool $ok;

    public string $name;

    /** What was seen, without the fingerprint that stands beside it. */
    public string $evidence;

    public ?string $fingerprint;

    /** Whether another key than the accepted one was shown; both stand side by side then. */
    public bool $changed;

    public ?string $cause;

    public ?string $next;

    /** @var array{change: string, value: string}|null */
    public ?array $remedy;

    /** @param  array<string, mixed>  $rung  as Rung::toArray() gives it */
    public function __construct(array $rung)
    {
        $this->ok = $rung['ok'];
        $this->name = $rung['name'];
        $this->fingerprint = $rung['identity']['fingerprint'] ?? null;
        $this->evidence = $this->fingerprint === null
            ? $rung['evidence']
            : str_replace([", SHA-256 $this->fingerprint", " $this->fingerprint"], '', $rung['evidence']);
        $this->changed = $rung['reason'] === FailureReason::IdentityChanged->value;
        $this->cause = $this->changed ? null : $rung['cause'];
        $this->next = $rung['next'];
        $this->remedy = $rung['remedy'];
    }

    /** What a button that applies the remedy says. */
    public function label(): string
    {
        $change = $this->remedy['change'] ?? '';
        $named = in_array($change, ['address', 'port', 'login'], true) ? ': '.$this->remedy['value'] : '';

        return (self::LABELS[$change] ?? 'Change it').$named;
    }
}
