<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Failure\Problem;
use App\Models\Account;
use App\Models\RecordKind;
use App\Record\Record;
use Cellarium\Core\Connection\Protocol;

/** Puts into an account what the ladder proposed and a person agreed to. */
final readonly class AppliesRemedies
{
    /** @throws Problem when the ladder no longer proposes it */
    public function apply(Account $account, string $change, string $value): void
    {
        $rung = collect($account->ladder ?? [])->last();
        if (($rung['remedy'] ?? null) !== ['change' => $change, 'value' => $value]) {
            throw new Problem('The ladder no longer proposes this. Connect again and look at what it says now.');
        }
        $account->fill(match ($change) {
            'address' => ['address' => $value],
            'port' => ['port' => (int) $value],
            'login' => ['login' => $value],
            'identity' => ['pin' => $rung['identity']],
            'protocol' => $this->protocol($account, Protocol::from($value)),
            default => throw new Problem("A change of $change is not known."),
        });
        // The host stays the same, and a person has just agreed to where the password goes from now on.
        $account->bindSecrets()->save();
        Record::write(RecordKind::AccountChanged, match ($change) {
            'identity' => "Accepted the key of $account->host: $value",
            default => "Changed the $change of $account->host to $value, as the ladder proposed",
        }, $account);
    }

    /** @return array<string, mixed> the port goes along where it was the usual one */
    private function protocol(Account $account, Protocol $to): array
    {
        return ['protocol' => $to, 'pin' => null]
            + ($account->port === $account->protocol->defaultPort() ? ['port' => $to->defaultPort()] : []);
    }
}
